import type { PartnersPart } from '@/core/ledger/movements';
import { type OrderShares, type SharedSums, sharesOfPayment } from '@/core/offer/shares';
import { addToOfferSums } from '@/db/offers';
import { type Order, ordersBehindInvoices } from '@/db/orders';
import { insertShares, type NewShare } from '@/db/partners';
import type { Payment } from '@/db/payments';
import type { Tx } from '@/db/pool';
import { found } from '@/flows/door/rights';

/** Money that came in for an invoice; `beforeMinor` was paid of it before. */
export type CameIn = {
  readonly payment: Pick<Payment, 'id' | 'invoiceId' | 'currency' | 'amountMinor'>;
  readonly feeMinor: bigint;
  readonly beforeMinor: bigint;
  /** The invoice's. */
  readonly sums: SharedSums;
};

/** Who gets what of a payment, as rows to be kept. */
export const sharesToKeep = ({ offer }: Pick<Order, 'offer'>, paymentId: string, { parts }: OrderShares): NewShare[] =>
  parts.map(({ share, fee }, position) => ({
    paymentId,
    position,
    partnerId: found(offer.split?.partners[position]).partnerId,
    shareMinor: share,
    feeMinor: fee,
  }));

/** What came of later payments: the orders behind them, by invoice, and what partners get of each, by payment. */
export type Repeated = {
  readonly orders: ReadonlyMap<string, Order>;
  readonly shares: ReadonlyMap<string, OrderShares>;
};

/** Later payments of what was ordered once are shared with partners and counted by the offer, as the first was. */
export async function recordRepeated(tx: Tx, came: readonly CameIn[]): Promise<Repeated> {
  const ids = [...new Set(came.flatMap(({ payment }) => payment.invoiceId ?? []))];
  const orders = await ordersBehindInvoices(tx, ids);
  const shares = new Map<string, OrderShares>();
  const rows: NewShare[] = [];
  const brought = new Map<string, { order: Order; count: number; minor: bigint }>();
  for (const { payment, feeMinor, beforeMinor, sums } of came) {
    const order = orders.get(payment.invoiceId ?? '');
    if (!order) continue;
    const parts = sharesOfPayment(order, { paidMinor: payment.amountMinor, beforeMinor, feeMinor, sums });
    shares.set(payment.id, parts);
    rows.push(...sharesToKeep(order, payment.id, parts));
    const key = `${order.offerId} ${payment.currency}`;
    const known = brought.get(key) ?? { order, count: 0, minor: 0n };
    brought.set(key, { order, count: known.count + 1, minor: known.minor + payment.amountMinor });
  }
  await insertShares(tx, rows);
  // In one order everywhere, so that nobody waits in a circle.
  for (const [, { order, count, minor }] of [...brought].sort(([a], [b]) => (a < b ? -1 : 1)))
    await addToOfferSums(tx, order.offerId, order.currency, minor, count);
  return { orders, shares };
}

/** What partners get of a payment, for its entry in the ledger; nothing where it is not shared. */
export function partnersOf({ shares }: Repeated, paymentId: string): { partners?: PartnersPart } {
  const known = shares.get(paymentId);
  return known ? { partners: known.all } : {};
}
