import { randomUUID } from 'node:crypto';
import { changedBetween, voucherSettings } from '@/core/business/money-settings';
import { isCalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { voucherExpired } from '@/core/ledger/movements';
import { money } from '@/core/money/money';
import { MOST_VOUCHER_MONTHS, type VoucherRule, voucherEnd } from '@/core/voucher/voucher';
import { type Business, businessById } from '@/db/businesses';
import { insertEntry } from '@/db/ledger';
import { type Order, orderById } from '@/db/orders';
import {
  lockVouchers,
  movesOf,
  moveVouchers,
  type ToldMove,
  updateExpiry,
  updateStopped,
  updateVoucherRule,
  type Voucher,
  type VoucherSum,
  voucherById,
  voucherRows,
  voucherRule,
  voucherSums,
} from '@/db/vouchers';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { noteSettings } from '@/flows/log/log';
import { queueVouchers } from './due-vouchers';

const PAGE = 50;

export type VoucherList = {
  readonly business: Business;
  readonly today: ReturnType<typeof dateInZone>;
  readonly rule: VoucherRule;
  readonly sums: readonly VoucherSum[];
  readonly rows: readonly Voucher[];
  /** After which voucher the next page begins; null on the last. */
  readonly next: string | null;
};

/** The business's vouchers, latest first, with what they are still worth. @param after the last of the page before; empty for the first */
export const voucherList = desk('see').read(
  async (db, { words, after }: { readonly words: string; readonly after: string }): Promise<VoucherList> => {
    const business = await businessById(db);
    const before = after ? await voucherById(db, after) : null;
    const rows = await voucherRows(db, { words: words.trim(), before, limit: PAGE + 1 });
    return {
      business,
      today: dateInZone(db.now, business.zone),
      rule: await voucherRule(db),
      sums: await voucherSums(db),
      rows: rows.slice(0, PAGE),
      next: rows.length > PAGE ? (rows[PAGE - 1]?.id ?? null) : null,
    };
  },
);

export type VoucherSheet = {
  readonly business: Business;
  readonly today: ReturnType<typeof dateInZone>;
  readonly voucher: Voucher;
  readonly order: Order;
  readonly moves: readonly ToldMove[];
};

/** A voucher with all that moved on it. @throws Refusal `not-found` */
export const voucherSheet = desk('see').read(async (db, id: string): Promise<VoucherSheet> => {
  const business = await businessById(db);
  const voucher = found(await voucherById(db, id));
  return {
    business,
    today: dateInZone(db.now, business.zone),
    voucher,
    order: found(await orderById(db, voucher.orderId)),
    moves: await movesOf(db, id),
  };
});

/** Stops a voucher, such as one whose code was lost, or lets it go on. @throws Refusal `not-found` */
export const stopVoucher = desk('take').write(async (tx, id: string, stopped: boolean): Promise<void> => {
  if ((await updateStopped(tx, id, stopped)) === 0) throw new Refusal('not-found');
});

/** Mails a voucher again, to whom it is for or to another address. @param press one press, one mail */
export const sendVoucherAgain = desk('take').write(
  async (tx, id: string, { press, to }: { readonly press: string; readonly to: string }): Promise<void> => {
    const { orderId, toEmail } = found(await voucherById(tx, id));
    if (!to && !toEmail) throw new Refusal('customer-without-email');
    await queueVouchers(tx, orderId, `voucher-again:${id}:${press}`, to);
  },
);

/**
 * Makes a voucher good for longer; one that is over is worth again what it was.
 *
 * @param on the new last day; empty for without end @throws Refusal `voucher-not-over` for an earlier day, `not-found`
 */
export const extendVoucher = desk('take').turn(async (tx, id: string, on: string): Promise<void> => {
  await lockVouchers(tx, [id]);
  const voucher = found(await voucherById(tx, id));
  const until = isCalendarDate(on) ? on : null;
  const today = dateInZone(tx.now, (await businessById(tx)).zone);
  const isLonger =
    until === null ? on === '' : until >= today && (voucher.expiresOn === null || until >= voucher.expiresOn);
  if (!isLonger || (voucher.expiresOn === null && until !== null)) throw new Refusal('voucher-not-over');
  const lost = (await movesOf(tx, id))
    .filter(({ kind }) => kind === 'expired' || kind === 'extended')
    .reduce((sum, { minor }) => sum - minor, 0n);
  await updateExpiry(tx, id, until);
  if (lost === 0n) return;
  await moveVouchers(tx, [{ voucherId: id, kind: 'extended', minor: lost }], tx.name);
  await insertEntry(
    tx,
    voucherExpired(today, `Voucher ${voucherEnd(voucher.code)} is good again`, money(-lost, voucher.currency)),
    { id: randomUUID(), cause: `voucher-extended:${id}:${tx.now.toISOString()}`, invoiceId: null, paymentId: null },
  );
});

/** How long vouchers are good that are sold from now on. @throws Refusal `offer-not-ready` for months that are none */
export const keepVoucherRule = desk('settings').write(async (tx, rule: VoucherRule): Promise<void> => {
  const { months } = rule;
  if (months !== null && !(Number.isInteger(months) && months >= 1 && months <= MOST_VOUCHER_MONTHS))
    throw new Refusal('offer-not-ready', [{ field: 'months', words: `Between 1 and ${MOST_VOUCHER_MONTHS} months.` }]);
  const before = await voucherRule(tx);
  await updateVoucherRule(tx, rule);
  await noteSettings(tx, 'vouchers', changedBetween(voucherSettings(before), voucherSettings(rule)));
});
