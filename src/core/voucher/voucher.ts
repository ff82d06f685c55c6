import { type CalendarDate, daysInMonth } from '../dates/calendar-date';
import { leastOf } from '../money/money';

/** How long a business's vouchers are good: so many months from the day of sale, or on to the end of that year; null for without end. */
export type VoucherRule = { readonly months: number | null; readonly toYearEnd: boolean };

export const MOST_VOUCHER_MONTHS = 240;

/** The last day on which a voucher that is sold on a day is good; null for without end. A month that is too short ends on its last day. */
export function lastDayOf(soldOn: CalendarDate, { months, toYearEnd }: VoucherRule): CalendarDate | null {
  if (months === null) return null;
  const [year = 0, month = 1, day = 1] = soldOn.split('-').map(Number);
  const count = year * 12 + month - 1 + months;
  const [endYear, endMonth] = [Math.floor(count / 12), (count % 12) + 1];
  const at = toYearEnd ? [endYear, 12, 31] : [endYear, endMonth, Math.min(day, daysInMonth(endYear, endMonth))];
  return at.map((part, index) => String(part).padStart(index === 0 ? 4 : 2, '0')).join('-') as CalendarDate;
}

/** Signs of a voucher's code: letters and digits that are not taken for one another. */
export const CODE_SIGNS = '23456789ABCDEFGHJKMNPQRSTUVWXYZ';
const GROUPS = 4;
const GROUP = 4;
export const CODE_LENGTH = GROUPS * GROUP;

/** A voucher's code as it is compared: capitals, without blanks and dashes; what is often typed for another sign is taken as meant. */
export const voucherKey = (typed: string): string =>
  typed
    .toUpperCase()
    .replace(/[\s\-–—.·]/g, '')
    .replace(/[^0-9A-Z]/g, '');

/** A code as it is printed: `K7QM-3XPA-9TNW-2HRB`. */
export const voucherCodeText = (key: string): string => key.match(/.{1,4}/g)?.join('-') ?? '';

/** The end of a code: enough to tell vouchers apart, of no use to anybody who pays. */
export const voucherEnd = (key: string): string => `…${key.slice(-GROUP)}`;

/** A voucher as far as using it needs it; minor units. */
export type Spendable = {
  readonly currency: string;
  /** What is left of it, less what open attempts hold. */
  readonly availableMinor: bigint;
  readonly expiresOn: CalendarDate | null;
  /** Stopped by the business, or because the payment by which it was bought is disputed. */
  readonly blocked: boolean;
};

/** Why a voucher cannot be used. */
export type VoucherProblem =
  | 'voucher-unknown'
  | 'voucher-over'
  | 'voucher-used-up'
  | 'voucher-currency'
  | 'voucher-blocked';

/** Why a voucher cannot pay something in a currency today; null where it can. */
export function voucherProblem(
  { availableMinor, currency, expiresOn, blocked }: Spendable,
  to: { readonly currency: string; readonly today: CalendarDate },
): VoucherProblem | null {
  if (blocked) return 'voucher-blocked';
  if (expiresOn !== null && to.today > expiresOn) return 'voucher-over';
  if (availableMinor <= 0n) return 'voucher-used-up';
  return currency === to.currency ? null : 'voucher-currency';
}

/**
 * How much of a voucher pays what is due, in minor units: all that it has, or what is due. What is left to be paid another way is
 * nothing or enough for a payment, so that a little of the voucher may stay. 0 where that leaves nothing to use.
 *
 * @param smallest the smallest payment that may be left
 */
export function voucherPart(availableMinor: bigint, dueMinor: bigint, smallest: bigint): bigint {
  const part = leastOf(availableMinor, dueMinor);
  const left = dueMinor - part;
  if (left === 0n || left >= smallest) return part;
  return dueMinor > smallest ? dueMinor - smallest : 0n;
}

/** What of an order's tax is in one of the payments that pay it together, minor units: in proportion, the last takes the rest. */
export const taxInPart = (taxMinor: bigint, totalMinor: bigint, partMinor: bigint): bigint =>
  totalMinor === 0n ? 0n : (taxMinor * partMinor * 2n + totalMinor) / (totalMinor * 2n);

/** What is bought: how many vouchers of which worth, in the order of the lines; minor units. They come to what was paid for them. */
export function vouchersOf(lines: readonly { readonly quantity: string; readonly net: number }[]): readonly bigint[] {
  return lines.flatMap(({ quantity, net }) => {
    const count = BigInt(Math.max(1, Math.trunc(Number(quantity))));
    const whole = BigInt(net);
    const each = whole / count;
    return Array.from({ length: Number(count) }, (_, at) =>
      at === Number(count) - 1 ? whole - each * (count - 1n) : each,
    );
  });
}
