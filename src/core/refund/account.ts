import { electronicFormatIBAN, isValidIBAN } from 'ibantools';

/** An account that money is transferred to: its holder's name and its IBAN (ISO 13616), without blanks. */
export type PayeeAccount = { readonly holder: string; readonly iban: string };

/** An IBAN as typed, without blanks and in capitals; null where its length or check digits are wrong. */
export function readIban(typed: string): string | null {
  const iban = electronicFormatIBAN(typed.trim());
  return iban && isValidIBAN(iban) ? iban : null;
}
