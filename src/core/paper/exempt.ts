/** As what a document is without tax: exempt, under reverse charge, exported, or outside the scope of tax. */
export const EXEMPT_AS = ['exempt', 'reverse-charge', 'export', 'outside'] as const;
export type ExemptAs = (typeof EXEMPT_AS)[number];
