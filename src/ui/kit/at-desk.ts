'use client';
import { createContext, useContext } from 'react';

/** Who sits at the desk, and how their business writes its days and sums. */
export type AtDesk = { readonly personId: string; readonly locale: string };

const Desk = createContext<AtDesk>({ personId: '', locale: 'en-US' });

/** Says so to every field and form below. */
export const AtDeskProvider = Desk.Provider;

/** How the business writes its days and sums. */
export const useBusinessLocale = (): string => useContext(Desk).locale;

/** Whose the words are that are typed here; empty for nobody who is signed in. */
export const usePersonId = (): string => useContext(Desk).personId;
