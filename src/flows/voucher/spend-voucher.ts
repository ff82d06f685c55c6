import type { CalendarDate } from '@/core/dates/calendar-date';
import { leastOf } from '@/core/money/money';
import { type VoucherProblem, voucherKey, voucherProblem } from '@/core/voucher/voucher';
import type { Db, Tx } from '@/db/pool';
import {
  lockVouchers,
  moveVouchers,
  takenByRefund,
  type Voucher,
  voucherByCode,
  voucherById,
  vouchersOfOrder,
} from '@/db/vouchers';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';

/** The voucher with a code as typed, and why it cannot pay something in a currency today; null for none typed. */
export async function typedVoucher(
  db: Db,
  typed: string,
  to: { readonly currency: string; readonly today: CalendarDate },
): Promise<{ readonly voucher: Voucher | null; readonly trouble: VoucherProblem | null } | null> {
  const key = voucherKey(typed);
  if (!key) return null;
  const voucher = await voucherByCode(db, key);
  return { voucher, trouble: voucher ? voucherProblem(voucher, to) : 'voucher-unknown' };
}

/** The same, locked until the transaction ends, for paying with it. @throws Refusal `voucher-…` */
export async function lockedVoucher(
  tx: Tx,
  typed: string,
  to: { readonly currency: string; readonly today: CalendarDate },
): Promise<Voucher> {
  const first = await voucherByCode(tx, voucherKey(typed));
  if (!first) throw new Refusal('voucher-unknown');
  await lockVouchers(tx, [first.id]);
  const voucher = found(await voucherById(tx, first.id));
  const trouble = voucherProblem(voucher, to);
  if (trouble) throw new Refusal(trouble);
  return voucher;
}

/** So much of a voucher is used by a payment. Called once, within the transaction that writes the payment down. */
export async function spendVoucher(
  tx: Tx,
  voucherId: string,
  { minor, paymentId, byName }: { readonly minor: bigint; readonly paymentId: string; readonly byName: string },
): Promise<void> {
  await lockVouchers(tx, [voucherId]);
  await moveVouchers(tx, [{ voucherId, kind: 'used', minor: -minor, paymentId }], byName);
}

/** What a voucher paid is put back onto it. @throws Refusal `voucher-over` where it is over: then it goes back another way */
export async function putBackOnVoucher(
  tx: Tx,
  voucherId: string,
  {
    minor,
    today,
    ...move
  }: {
    readonly minor: bigint;
    readonly today: CalendarDate;
    readonly paymentId: string;
    readonly refundId: string;
    readonly byName: string;
  },
): Promise<void> {
  await lockVouchers(tx, [voucherId]);
  const { expiresOn } = found(await voucherById(tx, voucherId));
  if (expiresOn !== null && today > expiresOn) throw new Refusal('voucher-over');
  const { byName, ...of } = move;
  await moveVouchers(tx, [{ voucherId, kind: 'given-back', minor, ...of }], byName);
}

/**
 * The sale of vouchers is refunded: they are worth that much less from now on, before the money is asked for, so that nothing is used
 * and given back.
 *
 * @throws Refusal `voucher-used` where less than that is left on them
 */
export async function takeOffSold(
  tx: Tx,
  orderId: string,
  { minor, refundId, byName }: { readonly minor: bigint; readonly refundId: string; readonly byName: string },
): Promise<void> {
  await lockVouchers(
    tx,
    (await vouchersOfOrder(tx, orderId)).map(({ id }) => id),
  );
  const moves = [];
  let left = minor;
  for (const { id, availableMinor } of await vouchersOfOrder(tx, orderId)) {
    const taken = leastOf(left, availableMinor);
    if (taken <= 0n) continue;
    moves.push({ voucherId: id, kind: 'refunded' as const, minor: -taken, refundId });
    left -= taken;
  }
  if (left > 0n) throw new Refusal('voucher-used');
  await moveVouchers(tx, moves, byName);
}

/** The processor refused that refund: the vouchers are worth what they were. */
export async function putBackSold(tx: Tx, refundId: string, byName: string): Promise<void> {
  const taken = (await takenByRefund(tx, refundId)).filter(({ minor }) => minor < 0n);
  await lockVouchers(
    tx,
    taken.map(({ voucherId }) => voucherId),
  );
  await moveVouchers(
    tx,
    taken.map(({ voucherId, minor }) => ({ voucherId, kind: 'not-refunded', minor: -minor, refundId })),
    byName,
  );
}
