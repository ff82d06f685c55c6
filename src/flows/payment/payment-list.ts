import { dateInZone } from '@/core/dates/zone';
import { partsOfPayment } from '@/core/share/split';
import type { TimelineLine } from '@/core/timeline/timeline';
import { type Business, businessById } from '@/db/businesses';
import type { Cursor } from '@/db/invoice-lists';
import { type Order, orderById } from '@/db/orders';
import { sharesOf } from '@/db/partners';
import { type PaymentRow, paymentRow, paymentRows } from '@/db/payments';
import { receiptOfPayment } from '@/db/receipts';
import { type Refund, refundsOf } from '@/db/refunds';
import { orderTimeline } from '@/db/timeline';
import { desk } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';

const PAGE = 40;

export type { PaymentRow };

export type PaymentPage = { readonly rows: readonly PaymentRow[]; readonly next: Cursor | null };

/** A page of payments, latest first. */
export const paymentPage = desk('see').read(async (db, after: Cursor | null): Promise<PaymentPage> => {
  const rows = await paymentRows(db, PAGE + 1, after);
  const shown = rows.slice(0, PAGE);
  const last = shown.at(-1);
  return {
    rows: shown,
    next: rows.length > PAGE && last ? { key: last.startedAt.toISOString(), id: last.id } : null,
  };
});

/** The business with its day, for screens that show dates. */
export const businessToday = desk('see').run(
  async (ctx): Promise<{ business: Business; today: ReturnType<typeof dateInZone>; now: Date }> => {
    const business = await ctx.read((db) => businessById(db));
    return { business, today: dateInZone(ctx.now, business.zone), now: ctx.now };
  },
);

/** One payment. @throws Refusal `not-found` */
export const onePayment = desk('see').run(async (ctx, id: string): Promise<PaymentRow> => {
  return found(await ctx.read((db) => paymentRow(db, id)));
});

/** What each partner gets of a payment, in order, and what is left to the business; minor units. */
export const partsOf = desk('see').read(
  async (
    db,
    payment: PaymentRow,
  ): Promise<{ partners: { position: number; name: string; minor: bigint }[]; ownMinor: bigint }> => {
    const shares = await sharesOf(db, payment.id);
    const { partners, ownMinor } = partsOfPayment(payment, shares);
    return {
      partners: shares.map(({ position, name }, at) => ({ position, name, minor: partners[at] ?? 0n })),
      ownMinor,
    };
  },
);

/** What a payment paid for where that was an order: the order, and what was given back. */
export const orderOfPayment = desk('see').run(
  async (
    ctx,
    payment: PaymentRow,
  ): Promise<{
    order: Order;
    refunds: Refund[];
    timeline: TimelineLine[];
    ownReference: string;
  } | null> => {
    const { orderId } = payment;
    if (!orderId) return null;
    return ctx.read(async (db) => ({
      order: found(await orderById(db, orderId)),
      timeline: await orderTimeline(db, orderId),
      ownReference: (await receiptOfPayment(db, payment.id))?.printed.ownReference ?? '',
      refunds: (await refundsOf(db, payment.id)).filter(({ state }) => state !== 'refused'),
    }));
  },
);
