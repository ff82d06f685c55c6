import { sellerOf } from '@/core/business/business';
import { jsonMinor } from '@/core/money/money';
import type { PrintedVoucher } from '@/core/voucher/printed-voucher';
import { voucherCodeText, voucherEnd } from '@/core/voucher/voucher';
import { type Business, businessById } from '@/db/businesses';
import { orderById } from '@/db/orders';
import type { Db } from '@/db/pool';
import { type Voucher, voucherById, vouchersOfOrder } from '@/db/vouchers';
import { vouchersPdf } from '@/documents/pdf/draw';
import type { VoucherSeal } from '@/flows/door/links';
import { type Context, desk } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { sealed } from '@/flows/door/signing';
import { type File, picturesOf } from '@/flows/file/kept-files';
import { services } from '@/outside/services';

/** The address of a voucher's own page. */
export const voucherLink = (businessId: string, voucherId: string): string =>
  `${services().publicUrl}/v/${sealed('voucher', { b: businessId, v: voucherId } satisfies VoucherSeal)}`;

/** A voucher as its paper shows it. */
export const printedVoucher = (business: Business, voucher: Voucher): PrintedVoucher => ({
  locale: voucher.locale,
  seller: sellerOf(business),
  accent: business.accent,
  logoId: business.logoId,
  title: voucher.title,
  code: voucherCodeText(voucher.code),
  currency: voucher.currency,
  valueMinor: jsonMinor(voucher.valueMinor),
  expiresOn: voucher.expiresOn,
  toName: voucher.toName,
  fromName: voucher.fromName,
  message: voucher.message,
  link: voucherLink(business.id, voucher.id),
});

/** The vouchers of an order as they are printed. */
export async function printedVouchers(db: Db, business: Business, orderId: string): Promise<PrintedVoucher[]> {
  return (await vouchersOfOrder(db, orderId)).map((voucher) => printedVoucher(business, voucher));
}

/** Vouchers as one PDF, each on a page of its own. */
export async function vouchersFile(ctx: Context, vouchers: readonly PrintedVoucher[]): Promise<File> {
  const [first] = vouchers;
  const bytes = await vouchersPdf(vouchers, await picturesOf(ctx, first?.logoId ?? null));
  return { name: `voucher-${voucherEnd(found(first).code).slice(1)}.pdf`, bytes, type: 'application/pdf' };
}

/** One voucher's PDF. @throws Refusal `not-found` */
export async function voucherFile(ctx: Context, id: string): Promise<File> {
  const printed = await ctx.read(async (db) => {
    const voucher = found(await voucherById(db, id));
    found(await orderById(db, voucher.orderId));
    return printedVoucher(await businessById(db), voucher);
  });
  return vouchersFile(ctx, [printed]);
}

/** The same for the business. */
export const deskVoucherPdf = desk('take').run(voucherFile);
