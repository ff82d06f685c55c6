import type { Category } from '@/core/einvoice/einvoice';
import { isCurrency, minorDigits } from '@/core/money/currency';
import { decimalText, powerOfTen, roundedQuotient, scaledDecimal } from '@/core/money/decimal';
import { NotAnInvoice } from './tree';

/** Without needless zeros at either end. */
const tidy = (decimal: string): string => {
  const [whole = '0', fraction = ''] = decimal.split('.');
  const kept = fraction.replace(/0+$/, '');
  return `${whole.replace(/^0+(?=\d)/, '') || '0'}${kept ? `.${kept}` : ''}`;
};

/** Whether a boolean of XML Schema says so (XSD part 2, 3.2.2). */
export const isTrue = (typed: string): boolean => typed === 'true' || typed === '1';

/**
 * A decimal as it stands in a file (XSD part 2, 3.2.3: `+5`, `.5` and `5.` are some too), tidied, with its sign; `otherwise` where
 * nothing, or no decimal, stands.
 */
export function decimal(typed: string, otherwise: string): string {
  if (!/^[+-]?(\d+(\.\d*)?|\.\d+)$/.test(typed)) return otherwise;
  const negative = typed.startsWith('-');
  const bare = tidy(typed.replace(/^[+-]/, ''));
  return negative && bare !== '0' ? `-${bare}` : bare;
}

/** Reads sums of one currency. @throws NotAnInvoice where it is no currency */
export function sumsIn(currency: string): (typed: string, where: string) => bigint {
  if (!isCurrency(currency)) throw new NotAnInvoice(`The currency ${currency || 'is missing'}`);
  const digits = minorDigits(currency);
  return (typed, where) => {
    if (typed === '') return 0n;
    const read = decimal(typed, '');
    try {
      const amount = scaledDecimal(read.replace(/^-/, ''), digits, 'bad_input', where);
      return read.startsWith('-') ? -amount : amount;
    } catch {
      throw new NotAnInvoice(`${where} is no amount of ${currency}: ${typed}`);
    }
  };
}

/** A price that is stated for several, for one; to 6 digits. */
export function priceOfOne(price: string, several: string): string {
  if (several === '1' || /^-?0*(\.0*)?$/.test(several)) return price;
  const scaled = (text: string) =>
    BigInt(Math.sign(text.startsWith('-') ? -1 : 1)) * scaledText(text.replace(/^-/, ''));
  return decimal(decimalText(roundedQuotient(scaled(price) * powerOfTen(6), scaled(several)), 6), price);
}

const scaledText = (text: string): bigint => {
  const [whole = '0', fraction = ''] = text.split('.');
  return BigInt(`${whole}${fraction.padEnd(12, '0').slice(0, 12)}`);
};

const CATEGORIES: readonly string[] = ['S', 'Z', 'E', 'AE', 'G', 'O', 'K'] satisfies Category[];

/** A tax category as it stands in a file. @throws NotAnInvoice for one of a special regime */
export function categoryOf(id: string): Category {
  const known = CATEGORIES.find((one) => one === (id || 'S'));
  if (!known) throw new NotAnInvoice(`The tax category ${id} is one of a special regime that is not known here`);
  return known as Category;
}
