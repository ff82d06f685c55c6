import { isSEPACountry, isValidIBAN } from 'ibantools';
import { fixedText } from '../money/decimal';
import { referenceOfNumber } from './reference';

/** What a payment code asks for; minor units. */
export type PaymentCode = {
  readonly holder: string;
  readonly account: string;
  /** A BIC, or anything else that is then left out. */
  readonly bankCode: string;
  readonly currency: string;
  readonly amountMinor: bigint;
  /** The invoice's number. */
  readonly number: string;
};

/** The standard's own bounds: 0.01 to 999,999,999.99 euros, a name of 70 letters, a text of 140. */
const MOST_MINOR = 99_999_999_999n;
const MOST_NAME = 70;
const MOST_TEXT = 140;
const BIC = /^[A-Z]{6}[A-Z0-9]{2}([A-Z0-9]{3})?$/;

const line = (text: string, most: number): string => [...text.replace(/\s+/g, ' ').trim()].slice(0, most).join('');

/**
 * What a banking app reads from the code on an invoice: a SEPA credit transfer (EPC069-12, version 002, UTF-8), with a structured
 * reference (ISO 11649) where the number makes one.
 *
 * @returns null where none is possible: another currency than euro, no IBAN of a SEPA country, a sum out of bounds
 */
export function paymentCode({ holder, account, bankCode, currency, amountMinor, number }: PaymentCode): string | null {
  const iban = account.replace(/\s/g, '').toUpperCase();
  if (currency !== 'EUR' || !isValidIBAN(iban) || !isSEPACountry(iban.slice(0, 2))) return null;
  if (amountMinor < 1n || amountMinor > MOST_MINOR) return null;
  const bic = bankCode.replace(/\s/g, '').toUpperCase();
  const reference = referenceOfNumber(number);
  return [
    'BCD',
    '002',
    '1',
    'SCT',
    BIC.test(bic) ? bic : '',
    line(holder, MOST_NAME),
    iban,
    `EUR${fixedText(amountMinor, 2)}`,
    '',
    reference,
    reference ? '' : line(number, MOST_TEXT),
  ]
    .join('\n')
    .replace(/\n+$/, '');
}
