import { randomUUID } from 'node:crypto';
import { dateInZone } from '@/core/dates/zone';
import { voucherExpired } from '@/core/ledger/movements';
import { money } from '@/core/money/money';
import { voucherEnd } from '@/core/voucher/voucher';
import { businessById } from '@/db/businesses';
import { insertEntry } from '@/db/ledger';
import type { Tx } from '@/db/pool';
import { moveVouchers, takeExpired, takeToSend, vouchersOfOrder } from '@/db/vouchers';
import type { Context } from '@/flows/door/operation';
import { queueMessage } from '@/flows/message/queue-message';

const AT_ONCE = 200;

/** Sends the vouchers whose day has come, each once, and closes those that are over. */
export async function lookAfterVouchers(ctx: Context): Promise<void> {
  for (;;) if ((await ctx.sets(sendSome)) === 0) break;
  for (;;) if ((await ctx.sets(expireSome)) === 0) break;
}

async function sendSome(tx: Tx): Promise<number> {
  const { zone } = await businessById(tx);
  const due = await takeToSend(tx, dateInZone(tx.now, zone), AT_ONCE);
  for (const { orderId } of due) await queueVouchers(tx, orderId, `voucher:${orderId}`);
  return due.length;
}

/** Mails an order's vouchers to whom they are for. @param key makes it one mail */
export async function queueVouchers(tx: Tx, orderId: string, key: string, toAddress = ''): Promise<void> {
  const [first] = await vouchersOfOrder(tx, orderId);
  if (!first) return;
  await queueMessage(tx, {
    kind: 'voucher',
    key,
    toName: first.toName,
    toAddress: toAddress || first.toEmail,
    orderId,
  });
}

async function expireSome(tx: Tx): Promise<number> {
  const { zone } = await businessById(tx);
  const today = dateInZone(tx.now, zone);
  const over = await takeExpired(tx, today, AT_ONCE);
  await moveVouchers(
    tx,
    over.map(({ id, balanceMinor }) => ({ voucherId: id, kind: 'expired', minor: -balanceMinor })),
    'Dahlia',
  );
  for (const { id, code, currency, balanceMinor } of over)
    await insertEntry(tx, voucherExpired(today, `Voucher ${voucherEnd(code)} is over`, money(balanceMinor, currency)), {
      id: randomUUID(),
      cause: `voucher-expired:${id}:${today}`,
      invoiceId: null,
      paymentId: null,
    });
  return over.length;
}
