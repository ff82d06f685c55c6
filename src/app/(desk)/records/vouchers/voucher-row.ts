import { longDate } from '@/core/dates/date-text';
import { jsonMinor, money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { type VoucherProblem, voucherEnd, voucherProblem } from '@/core/voucher/voucher';
import type { VoucherList } from '@/flows/voucher/vouchers';

const STATES: Readonly<Record<VoucherProblem, string>> = {
  'voucher-over': 'over',
  'voucher-used-up': 'used up',
  'voucher-blocked': 'stopped',
  'voucher-currency': '',
  'voucher-unknown': '',
};

type Of = Pick<VoucherList, 'business' | 'today'>;
type Voucher = VoucherList['rows'][number];

/** How a voucher stands, in a word or its last day. */
export function voucherStands(voucher: Voucher, { business, today }: Of): string {
  const problem = voucherProblem(voucher, { currency: voucher.currency, today });
  if (problem) return STATES[problem];
  return voucher.expiresOn ? `good until ${longDate(voucher.expiresOn, business.deskLocale)}` : 'good without end';
}

/** A voucher as its list shows it. */
export const voucherRow = (voucher: Voucher, of: Of) => ({
  id: voucher.id,
  href: `/records/vouchers/${voucher.id}`,
  name: voucher.toName || voucher.fromName || voucher.toEmail || voucher.title,
  under: [voucherEnd(voucher.code), voucherStands(voucher, of)].join(' · '),
  right: moneyText(money(voucher.balanceMinor, voucher.currency), of.business.deskLocale),
  mark:
    voucher.balanceMinor === voucher.valueMinor
      ? 'whole'
      : `of ${moneyText(money(voucher.valueMinor, voucher.currency), of.business.deskLocale)}`,
});

/** What the business owes by vouchers, as its screen needs it; minor units. */
export const jsonVoucherSums = ({ sums }: VoucherList) =>
  sums.map(({ currency, open, openMinor, soldMinor, usedMinor, expiredMinor }) => ({
    currency,
    open,
    openMinor: jsonMinor(openMinor),
    soldMinor: jsonMinor(soldMinor),
    usedMinor: jsonMinor(usedMinor),
    expiredMinor: jsonMinor(expiredMinor),
  }));
