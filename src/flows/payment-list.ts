import { dateInZone } from '@/core/dates/zone';
import type { TimelineLine } from '@/core/invoice/timeline';
import { type Business, businessById } from '@/db/businesses';
import type { Cursor } from '@/db/invoices';
import { type Order, orderById } from '@/db/orders';
import { type PaymentShare, sharesOf } from '@/db/partners';
import { type PaymentRow, paymentRow, paymentRows } from '@/db/payments';
import type { Actor } from '@/db/people';
import { receiptOfPayment } from '@/db/receipts';
import { type Refund, refundsOf } from '@/db/refunds';
import { orderTimeline } from '@/db/timeline';
import { readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from './access';

const PAGE = 40;

export type { PaymentRow };

export type PaymentPage = { readonly rows: readonly PaymentRow[]; readonly next: Cursor | null };

/** A page of payments, latest first. */
export function paymentPage(actor: Actor, after: Cursor | null): Promise<PaymentPage> {
  requireRight(actor, 'read');
  return readBusiness(actor.businessId, async (db) => {
    const rows = await paymentRows(db, actor.businessId, PAGE + 1, after);
    const shown = rows.slice(0, PAGE);
    const last = shown.at(-1);
    return {
      rows: shown,
      next: rows.length > PAGE && last ? { key: last.startedAt.toISOString(), id: last.id } : null,
    };
  });
}

/** The business with its day, for screens that show dates. */
export async function businessToday(
  actor: Actor,
): Promise<{ business: Business; today: ReturnType<typeof dateInZone>; now: Date }> {
  const now = await services().clock.now();
  const business = await readBusiness(actor.businessId, (db) => businessById(db, actor.businessId));
  return { business, today: dateInZone(now, business.zone), now };
}

/** One payment. @throws Refusal `not-found` */
export async function onePayment(actor: Actor, id: string): Promise<PaymentRow> {
  requireRight(actor, 'read');
  return found(await readBusiness(actor.businessId, (db) => paymentRow(db, actor.businessId, id)));
}

/** What a payment paid for where that was an order: the order, who shares, what was given back. */
export async function orderOfPayment(
  actor: Actor,
  payment: PaymentRow,
): Promise<{
  order: Order;
  shares: PaymentShare[];
  refunds: Refund[];
  timeline: TimelineLine[];
  ownReference: string;
} | null> {
  requireRight(actor, 'read');
  const { orderId } = payment;
  if (!orderId) return null;
  return readBusiness(actor.businessId, async (db) => ({
    order: found(await orderById(db, actor.businessId, orderId)),
    shares: await sharesOf(db, actor.businessId, payment.id),
    timeline: await orderTimeline(db, actor.businessId, orderId),
    ownReference: (await receiptOfPayment(db, actor.businessId, payment.id))?.printed.ownReference ?? '',
    refunds: (await refundsOf(db, actor.businessId, payment.id)).filter(({ state }) => state !== 'refused'),
  }));
}
