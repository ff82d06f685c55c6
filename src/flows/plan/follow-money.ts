import type { Business } from '@/core/business/business';
import { jsonMinor } from '@/core/money/money';
import { cardText, type SaleOutcome } from '@/core/payment/outcome';
import { after, type ChangedCharge, type Charge, can, type HowPaid } from '@/core/plan/charge';
import { chargesByIds, chargesPaidByHand, openChargesOfInvoices, paidByCharges, updateCharges } from '@/db/charges';
import type { Invoice } from '@/db/invoices';
import type { Payment } from '@/db/payments';
import { plansByIds } from '@/db/plans';
import type { Tx } from '@/db/pool';
import { addLines, type NewLine } from '@/db/timeline';
import { found } from '@/flows/door/rights';
import { planAllAhead } from './plan-ahead';
import { refuseCharges } from './refuse-charges';

type Said<Kind extends SaleOutcome['kind']> = {
  readonly payment: Payment;
  readonly outcome: Extract<SaleOutcome, { kind: Kind }>;
};

/**
 * Follows payments' outcomes into the plans that made them, and money that came another way into the charges of its invoice. Called
 * within the transaction that writes the outcomes down.
 *
 * @param invoices those that were paid, as they are afterwards
 */
export async function followIntoPlans(
  tx: Tx,
  business: Business,
  outcomes: {
    readonly paid: readonly Said<'accepted'>[];
    readonly refused: readonly Said<'refused'>[];
    readonly invoices: ReadonlyMap<string, Invoice>;
  },
): Promise<void> {
  const money = outcomes.paid.map(({ payment, outcome }): MoneyIn => {
    const how = { by: 'card', card: cardText(outcome.card) } as const;
    return { invoice: found(outcomes.invoices.get(found(payment.invoiceId))), payment, how };
  });
  await settleCharges(tx, business, money);
  const attempts = new Map(
    outcomes.refused.flatMap((one) => (one.payment.chargeId ? [[one.payment.chargeId, one]] : [])),
  );
  if (attempts.size === 0) return;
  const charges = await chargesByIds(tx, [...attempts.keys()], true);
  await refuseCharges(
    tx,
    business,
    charges
      .filter(({ state }) => state === 'charging')
      .map((charge) => ({ charge, ...found(attempts.get(charge.id)).outcome })),
  );
}

/** Money that came in for an invoice another way than by a card of a plan's. @param invoice as it is afterwards */
export const followMoney = (tx: Tx, business: Business, invoice: Invoice, how: HowPaid): Promise<void> =>
  settleCharges(tx, business, [{ invoice, payment: null, how }]);

type MoneyIn = {
  /** The invoice as it is with it. */
  readonly invoice: Invoice;
  /** The card payment that brought it, where one did. */
  readonly payment: Pick<Payment, 'id' | 'chargeId'> | null;
  readonly how: HowPaid;
};

/**
 * Money came in for invoices: the charge that made a payment is made, and what is over pays further open charges of the invoice in
 * their order, as far as it covers them whole.
 */
async function settleCharges(tx: Tx, business: Business, money: readonly MoneyIn[]): Promise<void> {
  const ids = [...new Set(money.map(({ invoice }) => invoice.id))];
  const open = ids.length > 0 ? await openChargesOfInvoices(tx, ids) : [];
  if (open.length === 0) return;
  const counted = await paidByCharges(tx, ids);
  const settled: ChangedCharge[] = [];
  const lines: NewLine[] = [];
  const settle = (charge: ChangedCharge, how: HowPaid) => {
    settled.push(charge);
    counted.set(charge.invoiceId ?? '', (counted.get(charge.invoiceId ?? '') ?? 0n) + charge.amountMinor);
    const { planId, chargedOn, amountMinor } = charge;
    const event = { kind: 'charge-made', on: chargedOn, amount: jsonMinor(amountMinor), how } as const;
    lines.push({ of: { planId }, event, byName: 'Dahlia' });
  };
  const waiting = new Map(open.map((charge) => [charge.id, charge]));
  for (const { payment, how } of money) {
    const own = payment?.chargeId ? waiting.get(payment.chargeId) : undefined;
    if (!own || !payment || !can(own, 'accepted')) continue;
    waiting.delete(own.id);
    settle(after(own, { kind: 'accepted', paymentId: payment.id, at: tx.now }), how);
  }
  for (const { invoice, payment, how } of money) {
    const paid = invoice.paidMinor - invoice.refundedMinor;
    for (const charge of [...waiting.values()].filter(({ invoiceId }) => invoiceId === invoice.id)) {
      const over = paid - (counted.get(invoice.id) ?? 0n);
      // With nothing due any more there is nothing left to charge, whatever the parts were.
      if (!can(charge, 'paid') || (charge.amountMinor > over && invoice.dueMinor > 0n)) continue;
      waiting.delete(charge.id);
      settle(after(charge, { kind: 'paid', how, paymentId: payment?.id ?? null, at: tx.now }), how);
    }
  }
  await writeSettled(tx, business, settled, lines);
}

async function writeSettled(
  tx: Tx,
  business: Business,
  settled: readonly ChangedCharge[],
  lines: readonly NewLine[],
): Promise<void> {
  if (settled.length === 0) return;
  await updateCharges(tx, settled);
  await addLines(tx, lines);
  const plans = await plansByIds(tx, planIds(settled), true);
  await planAllAhead(tx, business, plans);
}

const planIds = (charges: readonly Charge[]): string[] => [...new Set(charges.map(({ planId }) => planId))];

/**
 * Money by hand was taken back: the charges of its invoice that it paid are open again, the latest first, as many as are not paid
 * any more. @param invoice as it is afterwards @param paymentId the debit that came back and had paid some, where it is one
 */
export async function followTakenBack(
  tx: Tx,
  business: Business,
  invoice: Invoice,
  paymentId: string | null = null,
): Promise<void> {
  const paid = invoice.paidMinor - invoice.refundedMinor;
  let counted = (await paidByCharges(tx, [invoice.id])).get(invoice.id) ?? 0n;
  const open: ChangedCharge[] = [];
  for (const charge of await chargesPaidByHand(tx, invoice.id, paymentId)) {
    if (counted <= paid) break;
    counted -= charge.amountMinor;
    open.push(after(charge, { kind: 'taken-back' }));
  }
  await writeSettled(tx, business, open, []);
}
