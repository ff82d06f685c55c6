import { checkDigit } from '../cards/pretend-cards';
import type { Journal } from '../journal';

/** An account at the bank, of a business or of a partner: where money is paid out to. */
export type Account = { readonly number: string; readonly holder: string; readonly open: boolean };

/** A line of the journal: an account as it stands from now on. */
export type AccountEvent = Account;

/** Twelve digits: the bank's own three, a serial, and a check digit (ISO/IEC 7812-1 annex B). */
export function accountNumber(serial: number): string {
  const stem = `560${String(serial).padStart(8, '0')}`;
  return `${stem}${checkDigit(stem)}`;
}

/** Accounts from the beginning; one is closed, for trying that out. */
export const SHIPPED_ACCOUNTS: readonly Account[] = [
  { number: accountNumber(10_417), holder: 'Beatrix Amsel', open: true },
  { number: accountNumber(20_733), holder: 'Linus Oakhanger', open: true },
  { number: accountNumber(30_052), holder: 'Small Hands Instrument Fund', open: true },
  { number: accountNumber(40_891), holder: 'Gone Away', open: false },
  { number: '004277819', holder: 'Thistlewood Strings', open: true },
  { number: 'DE17560000010004277819', holder: 'Thistlewood Strings', open: true },
];

/** The bank's list of accounts. */
export class Accounts {
  private readonly byNumber = new Map<string, Account>();

  constructor(private readonly journal: Journal<AccountEvent>) {
    for (const account of [...SHIPPED_ACCOUNTS, ...journal.past]) this.byNumber.set(account.number, account);
  }

  /** The account with this number; spaces do not matter. */
  find(number: string): Account | undefined {
    return this.byNumber.get(number.replace(/\s/g, '').toUpperCase());
  }

  list(): Account[] {
    return [...this.byNumber.values()];
  }

  /** Opens an account in somebody's name. */
  openFor(holder: string): Account {
    return this.keep({ number: accountNumber(50_000 + this.byNumber.size * 137), holder, open: true });
  }

  close(number: string): Account | undefined {
    const account = this.find(number);
    return account && this.keep({ ...account, open: false });
  }

  private keep(account: Account): Account {
    this.byNumber.set(account.number, account);
    this.journal.append(account);
    return account;
  }
}
