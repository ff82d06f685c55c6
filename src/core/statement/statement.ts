import type { CalendarDate } from '../dates/calendar-date';
import { type Ageing, ageing } from '../invoice/ageing';
import type { Payer, Seller } from '../invoice/printed';

/** Something that changed what a customer owes; minor units, `charged` adds and `received` takes away. */
export type Movement = {
  readonly on: CalendarDate;
  readonly kind: 'invoice' | 'credit-note' | 'payment' | 'refund';
  readonly number: string;
  readonly how: string;
  readonly chargedMinor: bigint;
  readonly receivedMinor: bigint;
};

/** An invoice still open at the end. */
export type OpenItem = {
  readonly number: string;
  readonly issuedOn: CalendarDate;
  readonly dueOn: CalendarDate;
  readonly totalMinor: bigint;
  readonly dueMinor: bigint;
};

/** A customer's account over a period, in one currency; minor units. */
export type Statement = {
  readonly seller: Seller;
  readonly payer: Payer;
  readonly locale: string;
  readonly accent: string;
  readonly logoId: string | null;
  readonly currency: string;
  readonly from: CalendarDate;
  readonly to: CalendarDate;
  readonly openingMinor: number;
  readonly lines: readonly (Movement & { readonly balanceMinor: bigint })[];
  readonly closingMinor: number;
  readonly open: readonly OpenItem[];
  readonly ages: Ageing;
};

/**
 * The account's lines with the balance after each, and where it stood before and stands after.
 *
 * @param movements all of the customer's in this currency, in any order @param from to both days belong to the period
 */
export function accountLines(
  movements: readonly Movement[],
  from: CalendarDate,
  to: CalendarDate,
): Pick<Statement, 'openingMinor' | 'lines' | 'closingMinor'> {
  const sorted = [...movements].sort(
    (a, b) =>
      (a.on < b.on ? -1 : a.on > b.on ? 1 : 0) ||
      ORDER[a.kind] - ORDER[b.kind] ||
      BY_NUMBER.compare(a.number, b.number),
  );
  let balance = 0n;
  let opening = 0n;
  const lines: (Movement & { balanceMinor: bigint })[] = [];
  for (const movement of sorted) {
    if (movement.on > to) break;
    balance += movement.chargedMinor - movement.receivedMinor;
    if (movement.on < from) opening = balance;
    else lines.push({ ...movement, balanceMinor: balance });
  }
  return { openingMinor: Number(opening), lines, closingMinor: Number(balance) };
}

const BY_NUMBER = new Intl.Collator('en', { numeric: true });
// On one day what was charged comes before what was paid for it.
const ORDER: Readonly<Record<Movement['kind'], number>> = { invoice: 0, 'credit-note': 1, payment: 2, refund: 3 };

/** How late the open items are on a day (`calculation.md` 12). */
export const agesOf = (open: readonly OpenItem[], today: CalendarDate): Ageing =>
  ageing(
    today,
    open.map(({ dueOn, dueMinor }) => ({ dueOn, due: dueMinor })),
  );
