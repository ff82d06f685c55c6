import type { TallyTax } from '../tally/document';
import { applyingRules, type Place, type TaxRule } from './tax-rules';

/** A tax of the business: a rule for a place, or (without a country) one that only a person names. */
export type BusinessTax = TallyTax & Omit<TaxRule, 'name'> & { readonly retired: boolean };

/** The class of what is sold where nothing else is said. */
export const STANDARD = 'standard';

/** The ids of the taxes that hold for a class at a place, in the business's order. */
export function placeTaxes(place: Place, taxClass: string, taxes: readonly BusinessTax[]): string[] {
  const rules = taxes.filter((tax) => !tax.retired && tax.country !== '');
  return applyingRules(place, taxClass, rules).map((at) => rules[at]?.id ?? '');
}

/** The classes there are: the usual three, and the business's own. */
export const taxClasses = (taxes: readonly BusinessTax[]): string[] => [
  ...new Set(['standard', 'reduced', 'zero', ...taxes.filter((tax) => !tax.retired).map((tax) => tax.class)]),
];
