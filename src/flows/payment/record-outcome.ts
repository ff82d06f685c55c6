import { randomUUID } from 'node:crypto';
import type { Business } from '@/core/business/business';
import { agreedFeeOf } from '@/core/business/tariff';
import { dateInZone } from '@/core/dates/zone';
import { cardPaymentTaken } from '@/core/ledger/movements';
import { jsonMinor, money } from '@/core/money/money';
import { cardText, methodOf, type SaleOutcome } from '@/core/payment/outcome';
import { accountText, wordsOf } from '@/core/words/words';
import { businessById } from '@/db/businesses';
import { type Invoice, invoicesByIds, updatePaid } from '@/db/invoices';
import { insertEntries } from '@/db/ledger';
import { lockedOrder } from '@/db/orders';
import {
  lockedPayments,
  type Payment,
  paymentById,
  updatePaymentApproval,
  updatePaymentCollecting,
  updatePaymentsPaid,
  updatePaymentsRefused,
} from '@/db/payments';
import type { Tx } from '@/db/pool';
import { addLines } from '@/db/timeline';
import type { Context, Writing } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { settle } from '@/flows/invoice/settled';
import { recordOrderPaid, recordOrderRefused } from '@/flows/order/record-order';
import { type CameIn, partnersOf, recordRepeated } from '@/flows/order/repeated';
import { followIntoPlans } from '@/flows/plan/follow-money';
import { askAboutLater } from './ask-later';
import { paidSubject, type ToReceipt, writeReceipts } from './write-receipt';

type Accepted = Extract<SaleOutcome, { kind: 'accepted' }>;
type Refused = Extract<SaleOutcome, { kind: 'refused' }>;

/** What the processor said of a payment. */
export type Outcome = {
  readonly payment: Pick<Payment, 'id' | 'invoiceId' | 'orderId'>;
  readonly outcome: SaleOutcome;
};

type Said<Kind extends SaleOutcome> = { readonly payment: Payment; readonly outcome: Kind };

const saidOf = <Kind extends SaleOutcome['kind']>(said: readonly Said<SaleOutcome>[], kind: Kind) =>
  said.filter((one): one is Said<Extract<SaleOutcome, { kind: Kind }>> => one.outcome.kind === kind);

/**
 * Writes down what became of payments, once each and in a handful of statements: whoever comes second finds a payment settled and
 * changes nothing.
 *
 * Paid: the invoice owes less, the ledger is posted, a receipt gets its number, the plan goes on, and the mails are queued, all or nothing.
 */
export const recordOutcomes = (ctx: Context, outcomes: readonly Outcome[]): Promise<void> =>
  ctx[outcomes.length > 1 ? 'sets' : 'turn'](async (tx) => {
    // What is paid first, then the payments: the same order everywhere, so that nobody waits in a circle.
    const ids = [...new Set(outcomes.flatMap(({ payment }) => payment.invoiceId ?? []))];
    const invoices = new Map((await invoicesByIds(tx, ids, true)).map((invoice) => [invoice.id, invoice]));
    const orders = new Map<string, NonNullable<Awaited<ReturnType<typeof lockedOrder>>>>();
    for (const id of new Set(outcomes.flatMap(({ payment }) => payment.orderId ?? [])))
      orders.set(id, found(await lockedOrder(tx, id)));
    const payments = new Map(
      (
        await lockedPayments(
          tx,
          outcomes.map(({ payment }) => payment.id),
        )
      ).map((payment) => [payment.id, payment]),
    );
    const said: Said<SaleOutcome>[] = [];
    for (const { payment, outcome } of outcomes) {
      const current = found(payments.get(payment.id));
      payments.delete(payment.id);
      if (current.state === 'pending') said.push({ payment: current, outcome });
    }
    const business = await businessById(tx);
    const accepted = saidOf(said, 'accepted');
    const refused = saidOf(said, 'refused');
    const paid = accepted.filter(({ payment }) => payment.invoiceId !== null);
    const after = await recordPaid(tx, business, paid, invoices);
    for (const { payment, outcome } of accepted)
      if (payment.orderId) await recordOrderPaid(tx, found(orders.get(payment.orderId)), payment, outcome);
    await recordRefused(tx, refused);
    for (const { payment } of refused)
      if (payment.orderId) await recordOrderRefused(tx, found(orders.get(payment.orderId)), payment.id);
    await followIntoPlans(tx, business, { paid, refused, invoices: after });
    for (const { payment, outcome } of saidOf(said, 'approval')) await recordApproval(tx, payment, outcome);
    for (const { payment, outcome } of saidOf(said, 'collecting'))
      await recordCollecting(tx, business, payment, outcome);
  });

/** The same of one payment. Returns it as it is then. */
export async function recordOutcome(ctx: Context, payment: Outcome['payment'], outcome: SaleOutcome): Promise<Payment> {
  await recordOutcomes(ctx, [{ payment, outcome }]);
  return found(await ctx.read((db) => paymentById(db, payment.id)));
}

/** Writes down what came of a sale that was just made; where nobody knows, it is told, and asked about soon. */
export async function afterSale(ctx: Context, payment: Payment, outcome: SaleOutcome): Promise<Payment> {
  const later = await ctx.later();
  if (outcome.kind === 'unknown') await later.write((tx) => noteChecking(tx, [payment]));
  return recordOutcome(later, payment, outcome);
}

/** Asked about soon where nobody knows what became of it, and not only after the time that an answered attempt gets. */
const SOON_SECONDS = 2;

/** Nobody knows what became of these attempts: told on their timelines, and asked about soon. */
export async function noteChecking(tx: Tx, payments: readonly Payment[]): Promise<void> {
  await addLines(
    tx,
    payments.map((payment) => ({
      of: paidSubject(payment),
      event: { kind: 'checking', amount: jsonMinor(payment.amountMinor) },
      byName: 'Dahlia',
    })),
  );
  await askAboutLater(
    tx,
    payments.map(({ id }) => id),
    { key: `settle-soon:${payments[0]?.id}`, seconds: SOON_SECONDS },
  );
}

async function recordRefused(tx: Writing, refused: readonly Said<Refused>[]): Promise<void> {
  if (refused.length === 0) return;
  await updatePaymentsRefused(
    tx,
    refused.map(({ payment: { id }, outcome: { reason, card } }) => ({ id, reason, card })),
  );
  await addLines(
    tx,
    refused.map(({ payment, outcome: { reason, card } }) => {
      const known = payment.cardScheme ? `${payment.cardScheme} ·${payment.cardLast4}` : '';
      const amount = jsonMinor(payment.amountMinor);
      const event = { kind: 'refused', amount, reason, card: card ? cardText(card) : known } as const;
      return { of: paidSubject(payment), event, byName: 'Customer' };
    }),
  );
}

async function recordApproval(
  tx: Writing,
  payment: Payment,
  outcome: Extract<SaleOutcome, { kind: 'approval' }>,
): Promise<void> {
  if (payment.approvalUrl !== null) return;
  await updatePaymentApproval(tx, payment.id, outcome);
  const event = {
    kind: 'approval-asked',
    amount: jsonMinor(payment.amountMinor),
    card: cardText(outcome.card),
  } as const;
  await addLines(tx, [{ of: paidSubject(payment), event, byName: 'Dahlia' }]);
}

/** A bank debit is under way; a day that the processor moves is noted, and not told again. */
async function recordCollecting(
  tx: Writing,
  business: Business,
  payment: Payment,
  outcome: Extract<SaleOutcome, { kind: 'collecting' }>,
): Promise<void> {
  if (payment.expectedAt?.getTime() === outcome.expectedAt.getTime()) return;
  await updatePaymentCollecting(tx, payment.id, outcome);
  if (payment.expectedAt) return;
  const event = {
    kind: 'collecting',
    amount: jsonMinor(payment.amountMinor + payment.tipMinor),
    card: cardText(outcome.card),
    on: dateInZone(outcome.expectedAt, business.zone),
  } as const;
  await addLines(tx, [{ of: paidSubject(payment), event, byName: payment.chargeId ? 'Dahlia' : 'Customer' }]);
}

/** Writes down card payments of invoices. Returns the invoices as they are then. */
async function recordPaid(
  tx: Writing,
  business: Business,
  paid: readonly Said<Accepted>[],
  invoices: ReadonlyMap<string, Invoice>,
): Promise<Map<string, Invoice>> {
  const after = new Map(invoices);
  if (paid.length === 0) return after;
  const today = dateInZone(tx.now, business.zone);
  const more = new Map<string, bigint>();
  const receipts: ToReceipt[] = [];
  const came: CameIn[] = [];
  for (const { payment, outcome } of paid) {
    const invoice = found(after.get(found(payment.invoiceId)));
    const dueMinor = invoice.dueMinor - payment.amountMinor;
    const beforeMinor = invoice.paidMinor - invoice.refundedMinor;
    after.set(invoice.id, { ...invoice, dueMinor, paidMinor: invoice.paidMinor + payment.amountMinor });
    more.set(invoice.id, (more.get(invoice.id) ?? 0n) + payment.amountMinor);
    const { printed, creditedMinor } = invoice;
    came.push({ payment, feeMinor: outcome.feeMinor, beforeMinor, sums: found(printed) });
    const left = { beforeMinor, creditedMinor, leftMinor: dueMinor };
    receipts.push({
      printed: found(printed),
      payment,
      method: accountText(cardText(outcome.card), wordsOf(found(printed).locale)),
      ...left,
    });
  }
  await updatePaymentsPaid(
    tx,
    paid.map(({ payment, outcome: { saleId, feeMinor, card } }) => {
      const customerId = found(after.get(found(payment.invoiceId))?.customerId);
      return {
        id: payment.id,
        customerId,
        saleId,
        feeMinor,
        agreedFeeMinor: agreedFeeOf(business, payment, card),
        card,
      };
    }),
  );
  await updatePaid(
    tx,
    [...more].map(([id, amountMinor]) => ({ id, amountMinor, at: tx.now })),
  );
  const repeated = await recordRepeated(tx, came);
  await insertEntries(
    tx,
    paid.map(({ payment, outcome }) => {
      const { id: invoiceId, printed } = found(after.get(found(payment.invoiceId)));
      const amount = money(payment.amountMinor, payment.currency);
      const words = `${methodOf(outcome.card) === 'debit' ? 'Bank debit' : 'Card payment'} of invoice ${found(printed).number}`;
      return {
        entry: cardPaymentTaken(today, words, amount, {
          feeMinor: outcome.feeMinor,
          tipMinor: payment.tipMinor,
          ...partnersOf(repeated, payment.id),
        }),
        booking: { id: randomUUID(), cause: `payment:${payment.id}`, invoiceId, paymentId: payment.id },
      };
    }),
  );
  await writeReceipts(tx, business, receipts, repeated.orders);
  await settle(
    tx,
    [...more.keys()].filter((id) => after.get(id)?.dueMinor === 0n),
  );
  return after;
}
