/** Where EN 16931 is the standard of e-invoices: the members of CEN. */
const COUNTRIES = new Set(
  'AT BE BG CH CY CZ DE DK EE ES FI FR GB GR HR HU IE IS IT LI LT LU LV MK MT NL NO PL PT RO RS SE SI SK TR'.split(' '),
);

/** Whether an e-invoice is looked for: between a business where the standard holds, and a business. */
export const isEInvoiceUsual = (
  home: string,
  payer: { readonly taxNumber?: string; readonly country?: string },
): boolean => COUNTRIES.has(home) && (payer.taxNumber ?? '') !== '' && COUNTRIES.has(payer.country || home);
