'use client';
import { createContext, useContext } from 'react';

const BusinessLocale = createContext('en-US');

/** Says how the business writes its days and sums, to every field below. */
export const BusinessLocaleProvider = BusinessLocale.Provider;

/** How the business writes its days and sums. */
export const useBusinessLocale = (): string => useContext(BusinessLocale);
