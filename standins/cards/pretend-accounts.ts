import { accountNumber } from '../bank/accounts';
import type { PretendCard } from './pretend-cards';

/** What becomes of a collection from a pretend account: unpaid on its day, or paid and given back so many days later, with an ISO 20022 code. */
export type Collected = {
  readonly unpaid?: string;
  readonly back?: { readonly code: string; readonly days: number };
};

/** A payer's bank account, charged by bank debit. */
export type PretendAccount = Omit<PretendCard, 'behaviour'> & {
  readonly behaviour: 'debit';
  readonly collected: Collected;
};

const account = (name: string, serial: number, collected: Collected, words: string): PretendAccount => ({
  name,
  scheme: 'Bank account',
  number: accountNumber(serial),
  behaviour: 'debit',
  collected,
  words,
});

/** One account for each thing that can become of a collection. */
export const PRETEND_ACCOUNTS: readonly PretendAccount[] = [
  account('account-good', 71_204, {}, 'Collected after three banking days'),
  account('account-other', 72_518, {}, 'Collected after three banking days'),
  account('account-short', 73_046, { unpaid: 'AM04' }, 'Not enough money when it is collected'),
  account('account-closed', 74_390, { unpaid: 'AC04' }, 'Closed when it is collected'),
  account(
    'account-objects',
    75_661,
    { back: { code: 'MD06', days: 20 } },
    'Collected; 20 days later the payer asks for it back',
  ),
  account(
    'account-unsigned',
    76_907,
    { back: { code: 'MD01', days: 40 } },
    'Collected; 40 days later the bank finds no mandate',
  ),
];

/** The pretend account with this number; spaces do not matter. */
export const accountByNumber = (number: string): PretendAccount | undefined =>
  PRETEND_ACCOUNTS.find((known) => known.number === number.replace(/\s/g, ''));
