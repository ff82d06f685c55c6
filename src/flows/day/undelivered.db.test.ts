/** Mails that come back stand in Today, whatever they are about. */
import { expect, test } from 'vitest';
import { hearMailEvent } from '@/flows/message/hear-mail-event';
import { sendOwnPage } from '@/flows/plan/own-page';
import { keepPlan, sendPlan } from '@/flows/plan/plans';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { eventSignature } from '../../../standins/cards/webhooks';
import { asSuperuser } from '../../../tests/support/database';
import { paidOrder, placedOffer } from '../../../tests/support/offers';
import { planTerms } from '../../../tests/support/plans';
import { foundHouse, sharedWorkshop } from '../../../tests/support/workshop';
import { todayView } from './today';

const workshop = await sharedWorkshop();

test('a link to a plan, a receipt of an order and the link to the own page that come back are told with what they were about', async () => {
  const house = await foundHouse();
  const { id: planId } = await keepPlan(house.owner, null, {
    terms: planTerms(house, '2040-01-01'),
    memo: '',
    reference: '',
  });
  await sendPlan(house.owner, planId, 'mail');
  await sendOwnPage(house.owner, house.customerId, 'mail');
  const offer = await placedOffer(house, { prices: { USD: '40' } });
  await paidOrder(workshop, offer.called);
  const messages = await asSuperuser<{ id: string; kind: string }>(
    workshop.admin,
    `select id, kind from messages where kind in ('plan-link', 'own-page', 'receipt') order by created_at`,
  );
  expect(messages.map(({ kind }) => kind).sort()).toEqual(['own-page', 'plan-link', 'receipt']);
  for (const { id } of messages) {
    await handOverMessage(house.business.id, id);
    const body = JSON.stringify({
      messageId: `<${id}.${house.business.id}@localhost>`,
      event: 'bounced',
      reason: 'The mailbox is full',
    });
    const time = String(Math.floor(Date.now() / 1000));
    expect(await hearMailEvent({ body, time, signature: eventSignature('test-mail', time, body) })).toBe(true);
  }
  const { queue } = await todayView(house.owner);
  const told = queue.flatMap((item) => (item.kind === 'undelivered' ? [item.message] : []));
  expect(told.length).toBe(3);
  expect(told).toEqual(
    expect.arrayContaining([
      expect.objectContaining({ kind: 'plan-link', planId, planName: 'Care club', customer: 'Perpetua Vane' }),
      expect.objectContaining({ kind: 'own-page', customerId: house.customerId, customer: 'Perpetua Vane' }),
      expect.objectContaining({ kind: 'receipt', offerId: offer.id, offerName: 'Bench days', placement: 'link' }),
    ]),
  );
});
