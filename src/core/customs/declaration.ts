import { scaledDecimal } from '../money/decimal';
import { jsonMinor } from '../money/money';
import { isCountryCode } from '../place/address';

/** Why goods go abroad, as the forms of the Universal Postal Union ask (Convention Manual, CN 22 and CN 23). */
export const NATURES = ['sale', 'gift', 'sample', 'documents', 'returned', 'other'] as const;
export type Nature = (typeof NATURES)[number];

/** What of a declaration holds for all that is in a parcel. Plain JSON. */
export type CustomsPart = {
  readonly nature: Nature;
  /** What it is, where none of the natures fits. */
  readonly explanation: string;
  /** What whoever opens it should know: quarantine, restrictions. */
  readonly comments: string;
  /** Numbers of a licence and a certificate that go along. */
  readonly licence: string;
  readonly certificate: string;
  /** The importer's reference: a tax or importer number of whom it is for. */
  readonly importer: string;
};

/** As most parcels are declared. */
export const USUAL_CUSTOMS: CustomsPart = {
  nature: 'sale',
  explanation: '',
  comments: '',
  licence: '',
  certificate: '',
  importer: '',
};

/** What customs are told of one line, where it is not as its item says: for all of it, or empty and null. */
export type LineCustoms = {
  readonly declaredAs: string;
  readonly hsCode: string;
  readonly origin: string;
  /** What one weighs without any packing, in grams. */
  readonly netGrams: number | null;
};

/** A line as it is declared: net grams and worth of all of it, in minor units of the declaration's currency. Plain JSON. */
export type DeclaredLine = {
  readonly what: string;
  readonly quantity: string;
  readonly grams: number;
  readonly minor: number;
  readonly hsCode: string;
  readonly origin: string;
};

/** What customs are told of a parcel; it goes to the carrier and onto the paper as it is. Plain JSON. */
export type Declaration = CustomsPart & {
  readonly currency: string;
  readonly reference: string;
  readonly lines: readonly DeclaredLine[];
};

/** A line of a parcel as far as customs ask: with what its item says, and what was said for this parcel. */
export type LineToDeclare = {
  readonly what: string;
  readonly quantity: string;
  readonly valueMinor: bigint;
  readonly customs: LineCustoms | null;
  readonly item: { readonly grams: number; readonly hsCode: string; readonly origin: string } | null;
};

/** A customs number as it is declared: figures alone. */
export const bareHsCode = (typed: string): string => typed.replace(/[.\s]/g, '');

/** Whether it is a number of the Harmonized System: 6 figures, and up to 4 more that a country adds. */
export const isHsCode = (typed: string): boolean => /^\d{6}(\d{2}){0,2}$/.test(bareHsCode(typed));

/** What so many weigh of which one weighs so much, in whole grams, rounded up: what weighs anything is not declared as nothing. */
const gramsOf = (quantity: string, one: number): number =>
  Number((scaledDecimal(quantity, 4, 'bad_quantity', 'quantity') * BigInt(one) + 9_999n) / 10_000n);

/**
 * What customs are told of a parcel: each line as was said for it, else as its item says.
 *
 * @param reference the sender's own customs reference, such as an EORI number; empty for none
 */
export const declarationOf = (
  lines: readonly LineToDeclare[],
  part: CustomsPart,
  { currency, reference }: { readonly currency: string; readonly reference: string },
): Declaration => ({
  ...part,
  currency,
  reference,
  lines: lines.map(({ what, quantity, valueMinor, customs, item }) => ({
    what: customs?.declaredAs || what,
    quantity,
    grams: gramsOf(quantity, customs?.netGrams ?? item?.grams ?? 0),
    minor: jsonMinor(valueMinor),
    hsCode: bareHsCode(customs?.hsCode || item?.hsCode || ''),
    origin: customs?.origin || item?.origin || '',
  })),
});

/** What is missing of a declaration. `line` is its place among the lines, from 0; null for what holds for all. */
export type CustomsProblem = {
  readonly line: number | null;
  readonly field: keyof LineCustoms | 'minor' | 'explanation';
  readonly words: string;
};

/** Words that say nothing: customs send back what is called so. */
const SAYS_NOTHING =
  /^(an? )?(gifts?|goods|samples?|merchandise|stuff|things?|parts?|spare parts|accessories|various|miscellaneous|misc|items?|products?|articles?|present|order|parcel|other|n\/?a|-+|\.+)$/i;

/**
 * What keeps a declaration from being whole. What is sold needs its number in the Harmonized System and the country it was made in, whatever
 * it is its worth and its net weight; papers without worth have neither.
 *
 * @param grams what the parcel weighs with its packing: no more can be in it
 */
export function customsProblems({ nature, explanation, lines }: Declaration, grams: number): CustomsProblem[] {
  const problems: CustomsProblem[] = [];
  const add = (line: number | null, field: CustomsProblem['field'], words: string) =>
    problems.push({ line, field, words });
  if (nature === 'other' && !explanation.trim()) add(null, 'explanation', 'Say what kind of goods it is.');
  for (const [at, line] of lines.entries()) {
    const name = line.what.trim();
    if (!/\p{L}/u.test(name) || SAYS_NOTHING.test(name))
      add(at, 'declaredAs', 'Say what it is, such as “violin strings, steel”.');
    if (line.grams === 0) add(at, 'netGrams', `Say what ${name || 'it'} weighs.`);
    if (line.minor <= 0 && nature !== 'documents')
      add(at, 'minor', `Say what ${name || 'it'} is worth, also of a gift.`);
    if (line.hsCode ? !isHsCode(line.hsCode) : nature === 'sale')
      add(at, 'hsCode', `Write the customs number of ${name || 'it'} with 6 to 10 figures, such as 9209.94.`);
    if (line.origin ? !isCountryCode(line.origin) : nature === 'sale')
      add(at, 'origin', `Say in which country ${name || 'it'} was made.`);
  }
  const net = lines.reduce((sum, line) => sum + line.grams, 0);
  // Each line is rounded up to a gram of its own.
  if (net > grams + lines.length) add(null, 'netGrams', 'What is in it weighs more than the parcel: weigh it again.');
  return problems;
}

/** What a declaration comes to. */
export const declaredSum = ({
  lines,
}: Pick<Declaration, 'lines'>): { readonly grams: number; readonly minor: number } => ({
  grams: lines.reduce((sum, line) => sum + line.grams, 0),
  minor: lines.reduce((sum, line) => sum + line.minor, 0),
});
