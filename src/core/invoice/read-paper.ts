import { type Customer, taxPlace } from '../customer/customer';
import { minorDigits } from '../money/currency';
import { powerOfTen, scaledDecimal } from '../money/decimal';
import { typedDecimal } from '../money/typed';
import { isBlank, type Paper, type PaperLine } from '../paper/paper';
import { RuleError } from '../rule-error';
import type { Discount, Tally, TallyDocument, TallyLine } from '../tally/document';
import { lineTally, tally } from '../tally/tally';
import { type BusinessTax, placeTaxes, STANDARD } from '../tax/business-tax';
import type { Place } from '../tax/tax-rules';

/** What a paper is read against: the business's taxes and habits, and who pays. */
export type PaperSetting = {
  readonly taxes: readonly BusinessTax[];
  readonly currency: string;
  readonly pricesIncludeTax: boolean;
  /** The business's own place: a customer without an address is taxed as if there. */
  readonly home: Place;
  readonly customer: Pick<Customer, 'billing' | 'delivery'> | null;
};

/** A place on the paper that needs a look before sending; `field` is `customer`, `due`, `discount`, `lines` or `LINE-ID.part`. */
export type PaperProblem = { readonly field: string; readonly words: string };

/** The paper worked out: the tally of all that can be read, and what cannot. `counted` are the lines in the tally. */
export type PaperReading = {
  readonly document: TallyDocument;
  readonly tally: Tally;
  readonly counted: readonly PaperLine[];
  readonly problems: readonly PaperProblem[];
  /** Where the customer is taxed. */
  readonly place: Place;
};

const WORDS: Partial<Record<RuleError['code'], string>> = {
  bad_quantity: 'Write how much as a number above 0, with up to 4 digits after the point.',
  bad_price: 'Write the price as a number, with up to 6 digits after the point.',
  bad_rate: 'A discount in percent lies between 0 and 100.',
  discount_too_large: 'This discount is more than the amount it is taken from.',
  amount_out_of_range: 'This amount is too large to be written down.',
  bad_currency: 'Choose a currency of the list.',
};

const PART: Partial<Record<RuleError['code'], string>> = {
  bad_quantity: 'quantity',
  bad_price: 'price',
  bad_rate: 'discount',
  discount_too_large: 'discount',
  amount_out_of_range: 'price',
};

const SAY_BELOW_0 =
  'A line takes nothing off. Write it as a discount, on a line or on the whole; money back for an invoice is credited on that invoice’s sheet.';
const SAY_DISCOUNT = 'Write the discount as 10% or as an amount.';
const SAY_AMOUNT = 'Write this amount as a number.';

/** The largest sum there is, in minor units: it still stands in JSON as a number. */
const MOST_MINOR = BigInt(Number.MAX_SAFE_INTEGER);

/** A typed sum in minor units; null where it is none, or more than any sum. Nothing typed is 0. */
export function typedMinor(text: string, digits: number): bigint | null {
  if (text.trim() === '') return 0n;
  const number = typedDecimal(text);
  if (number === null) return null;
  try {
    const minor = scaledDecimal(number, digits, 'bad_input', 'amount');
    return minor > MOST_MINOR || minor < -MOST_MINOR ? null : minor;
  } catch {
    return null;
  }
}

/** A typed `10%` or `5.00`; undefined where nothing is typed, null where it is neither. */
export function typedShare(text: string, digits: number): Discount | undefined | null {
  const trimmed = text.trim();
  if (trimmed === '') return undefined;
  if (trimmed.endsWith('%')) {
    const percent = typedDecimal(trimmed.slice(0, -1));
    return percent === null ? null : { percent };
  }
  const amount = typedMinor(trimmed, digits);
  return amount === null ? null : { amount };
}

/** Whether a number is typed with a minus, or in the brackets of bookkeepers. */
const isBelow0 = (typed: string): boolean => /^\s*([-−–]\s*[\d.,]|\(.*\d.*\)\s*$)/.test(typed);

function readLine(line: PaperLine, currency: string, taxes: readonly string[]): TallyLine | PaperProblem {
  const digits = minorDigits(currency);
  for (const part of ['quantity', 'price'] as const)
    if (isBelow0(line[part])) return { field: `${line.id}.${part}`, words: SAY_BELOW_0 };
  const quantity = typedDecimal(line.quantity);
  if (quantity === null) return { field: `${line.id}.quantity`, words: WORDS.bad_quantity ?? '' };
  const unitPrice = typedDecimal(line.price);
  if (unitPrice === null) {
    const words = line.price.trim() ? (WORDS.bad_price ?? '') : 'Write the price of this line.';
    return { field: `${line.id}.price`, words };
  }
  const discount = typedShare(line.discount, digits);
  if (discount === null) return { field: `${line.id}.discount`, words: SAY_DISCOUNT };
  const read = { quantity, unitPrice, taxes, ...(discount ? { discount } : {}) };
  try {
    lineTally(read, powerOfTen(digits));
    return read;
  } catch (error) {
    if (!(error instanceof RuleError)) throw error;
    return { field: `${line.id}.${PART[error.code] ?? 'price'}`, words: WORDS[error.code] ?? error.message };
  }
}

/** Reads what stands on the document beside its lines: delivery, fees, flat taxes. What cannot be read counts as nothing. */
function readCharges(paper: Paper, digits: number, known: ReadonlySet<string>, problems: PaperProblem[]) {
  const minor = (typed: string, field: string): bigint => {
    const amount = typedMinor(typed, digits);
    if (amount === null) problems.push({ field, words: SAY_AMOUNT });
    return amount ?? 0n;
  };
  const fees = paper.fees.map((fee) => {
    if (fee.amount.trim() && !fee.name.trim()) problems.push({ field: `${fee.id}.name`, words: 'Name this fee.' });
    return { amount: minor(fee.amount, `${fee.id}.amount`), taxes: fee.taxes.filter((id) => known.has(id)) };
  });
  const flatTaxes = paper.flatTaxes.map((tax) => {
    if (tax.amount.trim() && !tax.name.trim()) problems.push({ field: `${tax.id}.name`, words: 'Name this tax.' });
    return { name: tax.name.trim() || 'Tax', amount: minor(tax.amount, `${tax.id}.amount`) };
  });
  const { delivery } = paper;
  return {
    ...(fees.length > 0 ? { fees } : {}),
    ...(flatTaxes.length > 0 ? { flatTaxes } : {}),
    ...(delivery
      ? {
          delivery: {
            amount: minor(delivery.charged, 'delivery'),
            ...(delivery.taxes ? { taxes: delivery.taxes.filter((id) => known.has(id)) } : {}),
          },
        }
      : {}),
  };
}

/** A currency that can be counted in, or the fallback with the fault said. */
function readCurrency(paper: Paper, fallback: string, problems: PaperProblem[]): string {
  const currency = paper.currency || fallback;
  try {
    minorDigits(currency);
    return currency;
  } catch {
    problems.push({ field: 'currency', words: WORDS.bad_currency ?? '' });
    return fallback;
  }
}

/**
 * Works out a paper while it is typed: lines that cannot be read yet are left out of the sum and named in `problems`.
 * Never throws for anything typed.
 */
export function readPaper(paper: Paper, setting: PaperSetting): PaperReading {
  const { taxes } = setting;
  const problems: PaperProblem[] = [];
  const known = new Set(taxes.map((tax) => tax.id));
  const currency = readCurrency(paper, setting.currency, problems);
  const digits = minorDigits(currency);
  const place = customerPlace(paper, setting);
  const byClass = new Map<string, readonly string[]>();
  const taxesOf = (line: PaperLine): readonly string[] => {
    if (line.taxesBy !== 'place') return line.taxes.filter((id) => known.has(id));
    const taxClass = line.taxClass ?? STANDARD;
    const found = byClass.get(taxClass) ?? placeTaxes(place, taxClass, taxes);
    byClass.set(taxClass, found);
    return found;
  };
  const counted: PaperLine[] = [];
  const lines: TallyLine[] = [];
  for (const line of paper.lines) {
    if (isBlank(line)) continue;
    const read = readLine(line, currency, taxesOf(line));
    if ('words' in read) {
      problems.push(read);
      continue;
    }
    if (!line.what.trim()) problems.push({ field: `${line.id}.what`, words: 'Say what this line is for.' });
    lines.push(read);
    counted.push(line);
  }
  const charges = readCharges(paper, digits, known, problems);
  if (paper.exempt !== null && !paper.exempt.trim())
    problems.push({ field: 'exempt', words: 'Say why no tax applies; the reason stands on the invoice.' });
  const named = new Set([
    ...lines.flatMap((line) => line.taxes ?? []),
    ...(charges.fees ?? []).flatMap((fee) => fee.taxes),
    ...(charges.delivery?.taxes ?? []),
  ]);
  const document: TallyDocument = {
    currency,
    pricesIncludeTax: paper.pricesIncludeTax ?? setting.pricesIncludeTax,
    ...(paper.exempt === null ? {} : { exempt: paper.exempt.trim() || 'Exempt' }),
    lines,
    ...charges,
    taxes: taxes.filter((tax) => named.has(tax.id)),
  };
  const discount = typedShare(paper.discount, digits);
  if (discount === null) problems.push({ field: 'discount', words: SAY_DISCOUNT });
  for (const attempt of discount ? [{ ...document, discount }, document] : [document]) {
    try {
      return { document: attempt, tally: tally(attempt), counted, problems, place };
    } catch (error) {
      if (!(error instanceof RuleError)) throw error;
      problems.push({ field: attempt.discount ? 'discount' : 'lines', words: WORDS[error.code] ?? error.message });
    }
  }
  const { fees: _fees, flatTaxes: _flat, delivery: _delivery, ...bare } = document;
  const nothing = { ...bare, lines: [] };
  return { document: nothing, tally: tally(nothing), counted: [], problems, place };
}

/** Where the customer of a paper is taxed; at home while nobody, or nobody with a country, is chosen. */
function customerPlace(paper: Paper, { customer, home }: PaperSetting): Place {
  const place = customer ? taxPlace(customer, paper.delivery !== null) : home;
  return place.country ? place : home;
}
