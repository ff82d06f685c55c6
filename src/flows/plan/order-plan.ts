import { randomUUID } from 'node:crypto';
import type { Business } from '@/core/business/business';
import type { Customer } from '@/core/customer/customer';
import { laterTerms } from '@/core/offer/later-plan';
import { todayOf } from '@/core/plan/days';
import { laterText } from '@/core/words/plan-wording';
import { takeNumber } from '@/db/businesses';
import { newToken } from '@/db/link-tokens';
import type { Order } from '@/db/orders';
import { insertPlan, planById } from '@/db/plans';
import type { Tx } from '@/db/pool';
import { addToTimeline } from '@/db/timeline';
import { found } from '@/flows/door/rights';
import { queueMessage } from '@/flows/message/queue-message';
import { payerAgreement } from './agreement';
import { writeAuthorisation } from './authorise';
import { putOnFile } from './cards-on-file';
import { planAhead } from './plan-ahead';

/**
 * A payment that is repeated was made: whoever paid is a customer with a plan from now on, authorised by the tick on the
 * checkout. The first payment is the order's own, so the plan begins one period later.
 */
export async function beginPlanOfOrder(tx: Tx, business: Business, order: Order, customer: Customer): Promise<void> {
  const { later, orderedOn } = order.printed;
  if (!later || !order.kept) return;
  const today = todayOf(business, tx.now);
  // The days that were said hold, unless the payment was settled so late that the first of them is over.
  const startOn = (later.dates[0] ?? today) > today ? orderedOn : today;
  const terms = laterTerms(order, later, { startOn, newId: randomUUID });
  const id = randomUUID();
  const number = `P-${await takeNumber(tx, 'plan')}`;
  const { currency } = order;
  const paper = { ...terms.paper, customerId: customer.id };
  const reference = order.reference;
  const plan = { id, customerId: customer.id, number, terms: { ...terms, paper }, currency, memo: '', reference };
  await insertPlan(tx, { ...plan, linkToken: newToken(tx.businessId), orderId: order.id, byId: null });
  await addToTimeline(tx, { planId: id }, { kind: 'made', by: 'offer' }, customer.name);
  const card = await putOnFile(tx, customer.id, found(order.kept), order.printed.payer.name);
  const written = found(await planById(tx, id, true));
  // As it stood on the checkout, in the payer's language.
  const { text, version } = await payerAgreement(tx, business, order.printed.locale, order.offer.title);
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
    {
      version,
      text: [text.replaceAll('{customer}', order.printed.payer.name), laterText(later, order.printed)].join('\n'),
    },
  );
  // The first payment's own day is left out.
  const pauses = [{ from: startOn, to: startOn }];
  await planAhead(tx, business, { ...written, state: 'active', startsOn: startOn, pauses, cardIds: [card.id] });
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
