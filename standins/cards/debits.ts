import { bankingDays } from '@/core/dates/banking-days';
import { type CalendarDate } from '@/core/dates/calendar-date';
import { roundedQuotient } from '@/core/money/decimal';
import type { Seeded } from '../seeded';
import type { Collected } from './pretend-accounts';

/** A sale that is collected from a bank account: when, and what becomes of it. */
export type Debit = Collected & { readonly collectsAt: string };

/** What a payer's bank gave back of a debit: amount and the bank's fee in minor units, with an ISO 20022 reason code. */
export type Returned = {
  readonly id: string;
  readonly code: string;
  readonly amount: number;
  readonly fee: number;
  readonly at: string;
};

type Debited = {
  readonly key: string;
  readonly amount: number;
  readonly status: string;
  readonly reason: string | null;
  readonly fee: number;
  readonly at: string;
  readonly refunds: readonly { readonly amount: number }[];
  readonly debit?: Debit | null;
  readonly returned?: Returned | null;
};

const BANKING_DAYS = 3;
const RETURN_FEE = 300;
const MOST_FEE = 500;

/** 0.5 percent, rounded half up, and 20 minor units; at most 500, and never more than the sale. */
export const debitFee = (amount: number): number =>
  Math.min(amount, MOST_FEE, Number(roundedQuotient(BigInt(amount) * 5n, 1000n)) + 20);

/** A debit asked for now: banks collect it on the third banking day after, at noon (UTC). */
export function debitFrom(collected: Collected, now: number): Debit {
  const day = new Date(now).toISOString().slice(0, 10) as CalendarDate;
  return { ...collected, collectsAt: `${bankingDays({}).after(day, BANKING_DAYS)}T12:00:00.000Z` };
}

/** What the payer's bank gives back of a paid debit: all that is left; null where that is nothing, or went back before. */
export function returnedBy(sale: Debited, code: string, at: number, seeded: Seeded): Returned | null {
  const amount = sale.amount - sale.refunds.reduce((sum, refund) => sum + refund.amount, 0);
  if (!sale.debit || sale.status !== 'accepted' || sale.returned || amount <= 0) return null;
  const hex = seeded.hex(`return ${sale.key}`, 32);
  const id = `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
  return { id, code, amount, fee: RETURN_FEE, at: new Date(at).toISOString() };
}

/** A debit once its day has come: paid, or not. */
export const collected = <Sale extends Debited>(sale: Sale, at: string, code: string | undefined): Sale =>
  code ? { ...sale, status: 'refused', reason: code, fee: 0, at } : { ...sale, status: 'accepted', at };

/** A debit as time leaves it: collected on its day, and given back later where its payer does so. */
export function debitAsOf<Sale extends Debited>(sale: Sale, now: number, seeded: Seeded): Sale {
  const { debit } = sale;
  if (!debit) return sale;
  if (sale.status === 'collecting')
    return now < Date.parse(debit.collectsAt)
      ? sale
      : debitAsOf(collected(sale, debit.collectsAt, debit.unpaid), now, seeded);
  if (!debit.back || sale.returned || sale.status !== 'accepted') return sale;
  const at = Date.parse(sale.at) + debit.back.days * 86_400_000;
  const returned = now < at ? null : returnedBy(sale, debit.back.code, at, seeded);
  return returned ? { ...sale, returned } : sale;
}

/** Whether time may still change a debit. */
export const isOpenDebit = ({ debit, status, returned }: Debited): boolean =>
  status === 'collecting' || Boolean(debit?.back && status === 'accepted' && !returned);
