import { voucherLetter } from '@/documents/mail/voucher-letters';
import { found } from '@/flows/door/rights';
import { printedVouchers, vouchersFile } from '@/flows/voucher/voucher-paper';
import type { Subject, Written } from './subject';

/** The vouchers of an order, to whom they are for. */
export async function voucherMail({ ctx, business, order }: Subject): Promise<Written | null> {
  const [first, ...more] = await ctx.read((db) => printedVouchers(db, business, found(order).id));
  if (!first) return null;
  return { ...voucherLetter([first, ...more]), files: [await vouchersFile(ctx, [first, ...more])] };
}
