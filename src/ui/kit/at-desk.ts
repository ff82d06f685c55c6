'use client';
import { createContext, useContext } from 'react';

/** Who sits at the desk, how they write days and sums, and the currency that it counts in. */
export type AtDesk = { readonly personId: string; readonly locale: string; readonly currency: string };

const Desk = createContext<AtDesk>({ personId: '', locale: 'en-US', currency: 'USD' });

/** Says so to every field and form below. */
export const AtDeskProvider = Desk.Provider;

/** How whoever sits at the desk writes days and sums. */
export const useDeskLocale = (): string => useContext(Desk).locale;

/** The currency that the business counts in. */
export const useBusinessCurrency = (): string => useContext(Desk).currency;

/** Whose the words are that are typed here; empty for nobody who is signed in. */
export const usePersonId = (): string => useContext(Desk).personId;
