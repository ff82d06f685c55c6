import { sellerOf } from '@/core/business/business';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import type { Seller } from '@/core/invoice/printed';
import { type VoucherProblem, voucherCodeText, voucherProblem } from '@/core/voucher/voucher';
import { businessById } from '@/db/businesses';
import { movesOf, type ToldMove, type Voucher, voucherById } from '@/db/vouchers';
import { VOUCHER_LINK } from '@/flows/door/links';
import { byLink, orNull } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import type { File } from '@/flows/file/kept-files';
import { servedPath } from '@/flows/file/served-file';
import { voucherFile } from './voucher-paper';

/** A voucher's own page: what it was worth, what is left, where it went. */
export type VoucherPage = {
  readonly seller: Seller;
  readonly accent: string;
  readonly logo: string | null;
  readonly voucher: Voucher;
  readonly code: string;
  readonly trouble: VoucherProblem | null;
  readonly moves: readonly (Pick<ToldMove, 'id' | 'kind' | 'minor'> & { readonly on: CalendarDate })[];
};

/** What the holder of a voucher sees; null for a link that opens nothing. */
export const voucherPage = orNull(
  byLink(VOUCHER_LINK).read(async (db, voucherId: string): Promise<VoucherPage> => {
    const business = await businessById(db);
    const voucher = found(await voucherById(db, voucherId));
    const today = dateInZone(db.now, business.zone);
    const moves = await movesOf(db, voucherId);
    return {
      seller: sellerOf(business),
      accent: business.accent,
      logo: business.logoId && servedPath(db, business.logoId),
      voucher,
      code: voucherCodeText(voucher.code),
      trouble: voucherProblem(voucher, { currency: voucher.currency, today }),
      moves: moves
        .filter(({ kind }) => kind === 'used' || kind === 'given-back')
        .map(({ id, kind, minor, at }) => ({ id, kind, minor, on: dateInZone(at, business.zone) })),
    };
  }),
);

/** Its PDF, for whoever holds the link. */
export const linkedVoucherPdf = byLink(VOUCHER_LINK).run(
  (ctx, voucherId: string): Promise<File> => voucherFile(ctx, voucherId),
);
