import type { CalendarDate } from '../dates/calendar-date';
import { fixedText } from '../money/decimal';
import { plainSum } from '../money/money-text';
import { type Declaration, declaredSum, type Nature } from './declaration';

/** Which form goes with a parcel: none, the small one of letters, or the whole one (UPU forms CN 22 and CN 23). */
export const CUSTOMS_FORMS = ['', 'cn22', 'cn23'] as const;
export type CustomsForm = (typeof CUSTOMS_FORMS)[number];

export const isCustomsForm = (text: string): text is CustomsForm => CUSTOMS_FORMS.some((one) => one === text);

/** Natures as the forms have them, in their two languages. */
export const NATURE_WORDS: Readonly<Record<Nature, { readonly en: string; readonly fr: string }>> = {
  sale: { en: 'Sale of goods', fr: 'Vente de marchandises' },
  gift: { en: 'Gift', fr: 'Cadeau' },
  sample: { en: 'Commercial sample', fr: 'Échantillon commercial' },
  documents: { en: 'Documents', fr: 'Documents' },
  returned: { en: 'Returned goods', fr: 'Retour de marchandise' },
  other: { en: 'Other', fr: 'Autre' },
};

/** A declaration as it is printed: every figure written, weights in kilograms. */
export type CustomsPaper = {
  readonly form: Exclude<CustomsForm, ''>;
  /** The item number, bare. */
  readonly number: string;
  readonly from: readonly string[];
  readonly fromPhone: string;
  readonly reference: string;
  readonly to: readonly string[];
  readonly toPhone: string;
  readonly toEmail: string;
  readonly importer: string;
  readonly nature: Nature;
  readonly explanation: string;
  readonly comments: string;
  readonly licence: string;
  readonly certificate: string;
  /** Numbers of the invoices or orders. */
  readonly invoice: string;
  readonly lines: readonly {
    readonly what: string;
    readonly quantity: string;
    readonly kilograms: string;
    readonly value: string;
    readonly hsCode: string;
    readonly origin: string;
  }[];
  readonly netKilograms: string;
  readonly grossKilograms: string;
  readonly value: string;
  readonly postage: string;
  readonly mailOn: CalendarDate;
  readonly signedBy: string;
};

/** Grams in kilograms with three places, as the forms ask. */
export const kilograms = (grams: number): string => fixedText(BigInt(grams), 3);

/** The written part of a declaration: values with their currency's code, since a sign may be several countries' own. */
export function writtenDeclaration(
  { lines, currency, nature, explanation, comments, licence, certificate, importer, reference }: Declaration,
  grossGrams: number,
): Pick<
  CustomsPaper,
  | 'nature'
  | 'explanation'
  | 'comments'
  | 'licence'
  | 'certificate'
  | 'importer'
  | 'reference'
  | 'lines'
  | 'netKilograms'
  | 'grossKilograms'
  | 'value'
> {
  const sum = declaredSum({ lines });
  const value = (minor: number) => `${plainSum(BigInt(minor), currency)} ${currency}`;
  return {
    ...{ nature, explanation, comments, licence, certificate, importer, reference },
    lines: lines.map((line) => ({
      what: line.what,
      quantity: line.quantity,
      kilograms: kilograms(line.grams),
      value: value(line.minor),
      hsCode: line.hsCode,
      origin: line.origin,
    })),
    netKilograms: kilograms(sum.grams),
    grossKilograms: kilograms(grossGrams),
    value: value(sum.minor),
  };
}
