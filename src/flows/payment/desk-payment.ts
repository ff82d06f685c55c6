import { randomUUID } from 'node:crypto';
import { sendBy } from '@/core/invoice/send-with';
import { jsonMinor, money } from '@/core/money/money';
import { completePaper, newLine, type Paper } from '@/core/paper/paper';
import { businessById } from '@/db/businesses';
import { cardById } from '@/db/cards';
import { customerById } from '@/db/customers';
import { invoiceById } from '@/db/invoices';
import { insertPayments, type Payment, paymentByDeskKey, paymentById } from '@/db/payments';
import { addToTimeline } from '@/db/timeline';
import { requireCards } from '@/flows/door/opening';
import { desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { writeDraft } from '@/flows/invoice/draft';
import { issueDraft } from '@/flows/invoice/issue-invoices';
import { readingOf } from '@/flows/invoice/paper-setting';
import { askAboutLater } from '@/flows/payment/ask-later';
import { services } from '@/outside/services';
import { requireFreshAttempt } from './fresh-attempt';
import { afterSale } from './record-outcome';
import { type PaymentStatus, saleKey, statusOf } from './take-payment';

/** One payment taken at the desk: the customer is there, or on the telephone. */
export type DeskPayment = {
  readonly customerId: string;
  readonly what: string;
  /** As typed, before tax where prices are without. */
  readonly price: string;
  /** Made by the screen for one press. */
  readonly attemptKey: string;
  readonly cardId?: string | undefined;
  readonly cardToken?: string | undefined;
};

/**
 * Takes a single card payment at the desk, with an invoice and a receipt. The same press twice is one payment.
 *
 * @throws Refusal `paper-not-ready`, `no-card`
 */
export const payAtDesk = desk('take').run(
  async (ctx, asked: DeskPayment): Promise<PaymentStatus & { invoiceId: string }> => {
    const { cards, publicUrl } = services();
    const card = asked.cardId ? await ctx.read((db) => cardById(db, asked.cardId ?? '')) : null;
    const token = card && card.customerId === asked.customerId ? { cardId: card.keptId } : asked.cardToken;
    if (!token) throw new Refusal('no-card');
    const claim = await ctx.turn((tx) => claimAtDesk(tx, asked));
    const answer = async (payment: Payment) => ({
      ...(await statusOf(ctx, payment)),
      invoiceId: found(payment.invoiceId),
    });
    if (!claim.mine) return answer(claim.payment);
    const { payment } = claim;
    const outcome = await cards.sale({
      key: saleKey(ctx.businessId, payment.id),
      amount: money(payment.amountMinor, payment.currency),
      token,
      take: 'both',
      reference: asked.what,
      returnUrl: `${publicUrl}/ask/invoices/${payment.invoiceId}`,
    });
    return answer(await afterSale(ctx, payment, outcome));
  },
);

function deskPaper({ customerId, what, price }: Pick<DeskPayment, 'customerId' | 'what' | 'price'>): Paper {
  const line = newLine(randomUUID(), 'piece', { what, quantity: '1', price, taxesBy: 'place', taxClass: 'standard' });
  return completePaper({ customerId, lines: [line], due: { kind: 'receipt' }, reminders: [] });
}

/** What a payment at the desk would come to with its tax, in minor units; null for what is no price. */
export const deskQuote = desk('take').read(
  async (
    db,
    asked: Pick<DeskPayment, 'customerId' | 'price'>,
  ): Promise<{ currency: string; totalMinor: number; taxMinor: number } | null> => {
    const business = await businessById(db);
    const customer = found(await customerById(db, asked.customerId));
    const { document, tally } = await readingOf(db, business, customer, deskPaper({ ...asked, what: '…' }));
    if (tally.total <= 0n) return null;
    return { currency: document.currency, totalMinor: jsonMinor(tally.total), taxMinor: jsonMinor(tally.taxTotal) };
  },
);

async function claimAtDesk(tx: Writing, asked: DeskPayment): Promise<{ mine: boolean; payment: Payment }> {
  const before = await paymentByDeskKey(tx, asked.attemptKey);
  if (before) return { mine: false, payment: before };
  await requireFreshAttempt(tx, asked.attemptKey);
  const business = await businessById(tx);
  await requireCards(tx, business);
  const id = await writeDraft(tx, business, deskPaper(asked), { revision: 1, origin: 'desk' });
  await addToTimeline(tx, id, { kind: 'made' }, tx.name);
  await issueDraft(tx, business, found(await invoiceById(tx, id)), sendBy('hand'));
  const invoice = found(await invoiceById(tx, id));
  const paymentId = randomUUID();
  await insertPayments(tx, [
    {
      id: paymentId,
      invoiceId: id,
      orderId: null,
      customerId: asked.customerId,
      channel: 'desk',
      currency: invoice.currency,
      amountMinor: invoice.totalMinor,
      tipMinor: 0n,
      exclusive: true,
      attemptKey: asked.attemptKey,
    },
  ]);
  await askAboutLater(tx, [paymentId]);
  return { mine: true, payment: found(await paymentById(tx, paymentId)) };
}
