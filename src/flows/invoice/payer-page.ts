import { askedNow, evened, type Payable, payable } from '@/core/payment/part-payment';
import { updateSeen } from '@/db/invoices';
import { type PayerView, payerView } from '@/db/payer-view';
import { addToTimeline } from '@/db/timeline';
import { INVOICE_LINK } from '@/flows/door/links';
import { anybody, byLink } from '@/flows/door/operation';
import type { FieldsHow } from '@/outside/cards';
import { services } from '@/outside/services';

/** What the customer's link shows; null for a link that opens nothing. */
export const viewByLink = anybody().run(
  async (house, link: string): Promise<PayerView | null> => house.outside((db) => payerView(db, link)),
);

/** What may be paid through the link now: part of what is due may be held by somebody else's open attempt. */
export function payableNow(view: PayerView): Payable {
  const { ways } = view.printed;
  // An exclusive attempt is the payer's own: the page asks about it and holds nothing back.
  const held = view.pending ? 0n : view.heldMinor;
  const sums = evened({ total: view.totalMinor, paid: view.paidMinor, refunded: view.refundedMinor });
  return payable({
    ...sums,
    paid: sums.paid + held,
    credited: view.creditedMinor,
    parts: ways.parts,
    ...(ways.parts && ways.firstMinor > 0 ? { firstPayment: { amount: BigInt(ways.firstMinor) } } : {}),
    smallest: view.smallestMinor,
  });
}

/** The part that a plan asks for now, in minor units; null where the whole is to be paid. */
export const partAskedNow = (view: PayerView, may: Payable): bigint | null =>
  askedNow(
    { asked: view.askedMinor, counted: view.countedMinor, paid: view.paidMinor - view.refundedMinor + view.heldMinor },
    may,
  );

/** The customer's page says that somebody looks at it: noted the first time. */
export const noteSeen = byLink(INVOICE_LINK).write(
  async (tx, invoiceId: string, device: 'phone' | 'computer'): Promise<void> => {
    if (!(await updateSeen(tx, invoiceId))) return;
    await addToTimeline(tx, invoiceId, { kind: 'seen', device }, 'the customer');
  },
);

/**
 * The address of the processor's fields for a frame on our pages.
 *
 * @param how.framed where our page stands in a frame itself @param how.take a card only, where nothing is said
 */
export const cardFieldsUrl = (how: FieldsHow = {}): string => {
  const { cards, publicUrl } = services();
  return cards.fieldsUrl(new URL(publicUrl).origin, how);
};
