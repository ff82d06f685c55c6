import type { Challenge, Solution } from 'altcha-lib';

/** What a payer's computer was given to work out, with what it found. */
export type Work = { readonly challenge: Challenge; readonly solution: Solution };
