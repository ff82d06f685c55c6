import { randomUUID } from 'node:crypto';
import type { Business } from '@/core/business/business';
import type { Customer } from '@/core/customer/customer';
import { dateInZone } from '@/core/dates/zone';
import { minorDigits } from '@/core/money/currency';
import { decimalText } from '@/core/money/decimal';
import { chosenRhythm } from '@/core/offer/repeat';
import { completePaper, newLine, type PaperLine } from '@/core/paper/paper';
import type { PlanTerms } from '@/core/plan/plan';
import { wordsOf } from '@/core/words/words';
import { takeNumber } from '@/db/businesses';
import { newToken } from '@/db/link-tokens';
import type { Order } from '@/db/orders';
import { insertPlan, planById } from '@/db/plans';
import type { Tx } from '@/db/pool';
import { addToTimeline } from '@/db/timeline';
import { found } from '@/flows/door/rights';
import { queueMessage } from '@/flows/message/queue-message';
import { writeAuthorisation } from './authorise';
import { putOnFile } from './cards-on-file';
import { planAhead } from './plan-ahead';

/** What was ordered, as the lines that are charged again: what a code took off and a tip are for the first time only. */
function linesOf({ offer, choice, printed, currency }: Order): PaperLine[] {
  const taken = offer.items.filter(({ id }) => {
    const chosen = choice.items.find((one) => one.id === id);
    return Number(chosen?.quantity ?? 0) > 0;
  });
  const lines = printed.lines.map((line, at) => {
    const taxClass = offer.kind === 'items' ? (taken[at]?.taxClass ?? 'standard') : offer.taxClass;
    const taxes =
      offer.kind === 'donation' ? ({ taxesBy: 'person' } as const) : ({ taxesBy: 'place', taxClass } as const);
    return newLine(randomUUID(), 'piece', {
      what: line.what,
      quantity: line.quantity,
      price: line.unitPrice,
      taxes: [],
      ...taxes,
    });
  });
  const delivery = printed.delivery?.amount ?? 0;
  if (delivery > 0)
    lines.push(
      newLine(randomUUID(), 'piece', {
        what: wordsOf(printed.locale).delivery,
        quantity: '1',
        price: decimalText(BigInt(delivery), minorDigits(currency)),
        taxesBy: 'place',
        taxClass: 'standard',
      }),
    );
  return lines;
}

/**
 * A payment that is repeated was made: whoever paid is a customer with a plan from now on, authorised by the tick on the
 * checkout. The first payment is the order's own, so the plan begins one period later.
 */
export async function beginPlanOfOrder(tx: Tx, business: Business, order: Order, customer: Customer): Promise<void> {
  const rhythm = chosenRhythm(order.offer, order.choice);
  if (!rhythm || !order.kept) return;
  const today = dateInZone(tx.now, business.zone);
  const count = order.offer.repeat?.count ?? null;
  // The first of so many is paid already.
  if (count !== null && count < 2) return;
  const terms: PlanTerms = {
    kind: 'membership',
    name: order.offer.title,
    paper: completePaper({
      customerId: customer.id,
      currency: order.currency,
      pricesIncludeTax: order.printed.pricesIncludeTax,
      lines: linesOf(order),
    }),
    schedule: { ...rhythm, start: today, ends: count === null ? 'never' : { after: count - 1 } },
    firstNow: false,
    setUp: '',
    freeFirst: false,
    deposit: '',
    leftover: 'even',
    pay: 'card',
    receipts: order.offer.receipt === 'auto',
    noticeDays: null,
  };
  const id = randomUUID();
  const number = `P-${await takeNumber(tx, 'plan')}`;
  const { currency } = order;
  const plan = { id, customerId: customer.id, number, terms, currency, memo: '', reference: order.reference };
  await insertPlan(tx, { ...plan, linkToken: newToken(tx.businessId), orderId: order.id, byId: null });
  await addToTimeline(tx, { planId: id }, { kind: 'made', by: 'offer' }, customer.name);
  const card = await putOnFile(tx, customer.id, found(order.kept), order.printed.payer.name);
  const written = found(await planById(tx, id, true));
  await writeAuthorisation(
    tx,
    customer,
    { card, plan: written },
    {
      how: 'ticked',
      givenBy: order.printed.payer.name,
      takenBy: 'Customer',
      from: order.kept.from,
      fileId: null,
    },
  );
  // Dates are counted from today, so that a 31st stays one; today's own is left out.
  const pauses = [{ from: today, to: today }];
  await planAhead(tx, business, { ...written, state: 'active', startsOn: today, pauses });
  const started = { kind: 'plan-started', first: 'with-order' } as const;
  await addToTimeline(tx, { planId: id }, started, customer.name);
  if (!customer.email) return;
  await queueMessage(tx, {
    kind: 'own-page',
    key: `own-page:plan:${id}`,
    customerId: customer.id,
    toName: customer.name,
    toAddress: customer.email,
  });
}
