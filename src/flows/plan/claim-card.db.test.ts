/** Cards that the processor keeps: none without a file, whatever is pressed at once, refused or killed in between. */
import { randomUUID } from 'node:crypto';
import { expect, test } from 'vitest';
import { programContext } from '@/flows/door/program';
import { checkBooks } from '@/flows/house/check-books';
import { settlePayments } from '@/flows/payment/settle-payment';
import { services } from '@/outside/services';
import { asSuperuser } from '../../../tests/support/database';
import { paidOrder, placedOffer } from '../../../tests/support/offers';
import { planTerms } from '../../../tests/support/plans';
import { cardToken, foundHouse, type House, sharedWorkshop } from '../../../tests/support/workshop';
import { addCardAtDesk, removeAtDesk } from './cards-on-file';
import { settleCard } from './claim-card';
import { acceptPlan, keepPlan, sendPlan } from './plans';

const workshop = await sharedWorkshop();

const keptBy = async (house: House): Promise<string[]> =>
  ((await services().cards.keptCards(`${house.business.id}.`)) ?? []).map(({ id }) => id).sort();
const rows = <Row>(text: string, values: unknown[] = []) => asSuperuser<Row>(workshop.admin, text, values);
const onFile = async (house: House): Promise<string[]> =>
  (
    await rows<{ id: string }>(
      `select kept_id as id from cards where business_id = $1 and state <> 'removed' order by 1`,
      [house.business.id],
    )
  ).map(({ id }) => id);
const claims = (house: House) =>
  rows<{ key: string }>('select key from card_claims where business_id = $1', [house.business.id]);
const authorisations = (house: House) =>
  rows<{ n: number }>('select count(*)::int as n from authorisations where business_id = $1', [house.business.id]);

/** What the worker would do once the time of each claim has come. */
async function settleAll(house: House): Promise<void> {
  for (const { key } of await claims(house)) await settleCard(house.business.id, key);
}

async function waitingPlan(house: House): Promise<string> {
  const { id } = await keepPlan(house.owner, null, { terms: planTerms(house, '2040-01-01'), memo: '', reference: '' });
  await sendPlan(house.owner, id, 'link');
  const [plan] = await rows<{ link: string }>('select link_token as link from plans where id = $1', [id]);
  return plan?.link ?? '';
}

const given = { how: 'telephone', givenBy: 'Perpetua Vane', fileId: null } as const;
const repeated = {
  prices: { USD: '40' },
  repeat: { rhythms: [{ unit: 'month', every: 1 }], once: true, count: null },
} as const;

test('eight acceptances at once leave one card kept, one on file, one authorisation', async () => {
  const house = await foundHouse();
  const link = await waitingPlan(house);
  const tokens = await Promise.all(
    [
      'corvid-good',
      'lumen-good',
      'corvid-good',
      'corvid-second',
      'lumen-good',
      'corvid-good',
      'lumen-good',
      'corvid-good',
    ].map((card) => cardToken(workshop.standIns, card)),
  );
  await Promise.all(
    tokens.map((token) =>
      acceptPlan(link, { cardToken: token, key: randomUUID(), name: 'Perpetua Vane', agrees: true }, 'a'),
    ),
  );
  expect((await onFile(house)).length).toBe(1);
  expect(await keptBy(house)).toEqual(await onFile(house));
  expect(await authorisations(house)).toEqual([{ n: 1 }]);
  expect(await claims(house)).toEqual([]);
});

test('one press sent eight times keeps its one card', async () => {
  const house = await foundHouse();
  const link = await waitingPlan(house);
  const token = await cardToken(workshop.standIns, 'corvid-good');
  const press = { cardToken: token, key: randomUUID(), name: 'Perpetua Vane', agrees: true };
  await Promise.allSettled(Array.from({ length: 8 }, () => acceptPlan(link, press, 'a')));
  await settleAll(house);
  expect((await onFile(house)).length).toBe(1);
  expect(await keptBy(house)).toEqual(await onFile(house));
});

test('a repeated payment that is refused leaves no card; one that is made leaves one; what is free at first leaves one too', async () => {
  const house = await foundHouse();
  const offer = await placedOffer(house, repeated);
  await paidOrder(workshop, offer.called, { repeat: 'month:1', agrees: true }, 'corvid-poor');
  expect(await keptBy(house)).toEqual([]);
  expect(await claims(house)).toEqual([]);
  await paidOrder(workshop, offer.called, { repeat: 'month:1', agrees: true });
  expect((await keptBy(house)).length).toBe(1);
  expect(await keptBy(house)).toEqual(await onFile(house));
  expect(await claims(house)).toEqual([]);
});

test('a checkout that is turned away keeps nothing: the claim comes first', async () => {
  const house = await foundHouse();
  const offer = await placedOffer(house, { ...repeated, mostPayments: 1 });
  await paidOrder(workshop, offer.called, { repeat: 'month:1', agrees: true });
  const before = await keptBy(house);
  await expect(paidOrder(workshop, offer.called, { repeat: 'month:1', agrees: true })).rejects.toThrow();
  expect(await keptBy(house)).toEqual(before);
  expect(await claims(house)).toEqual([]);
});

test('killed after the processor kept the card, the job drops it; killed after it came on file, it stays', async () => {
  const house = await foundHouse();
  const ctx = programContext(house.business.id);
  const { claimCard } = await import('./claim-card');
  const key = randomUUID();
  await ctx.write((tx) => claimCard(tx, key));
  const token = await cardToken(workshop.standIns, 'corvid-good');
  await services().cards.keepCard(token, `${house.business.id}.${key}`);
  expect((await keptBy(house)).length).toBe(1);
  await settleAll(house);
  expect(await keptBy(house)).toEqual([]);
  expect(await claims(house)).toEqual([]);
  // Nothing that is still on its way can keep it now.
  expect(await services().cards.keepCard(token, `${house.business.id}.${key}`)).toBeNull();

  await addCardAtDesk(house.owner, house.customerId, token, randomUUID(), given);
  const kept = await keptBy(house);
  await rows(
    `insert into card_claims (business_id, key, kept_id, state, claimed_at) values ($1, 'late', $2, 'open', now())`,
    [house.business.id, kept[0]],
  );
  await settleAll(house);
  expect(await keptBy(house)).toEqual(kept);
  expect(await claims(house)).toEqual([]);
});

test('a claim whose payment is not decided waits for it', async () => {
  const house = await foundHouse();
  const offer = await placedOffer(house, repeated);
  const paymentId = await paidOrder(workshop, offer.called, { repeat: 'month:1', agrees: true }, 'lumen-approval');
  await settleAll(house);
  expect((await keptBy(house)).length).toBe(1);
  expect((await claims(house)).length).toBe(1);
  await services().cards.close(`${house.business.id}.${paymentId}`);
  await settlePayments(house.business.id, [paymentId]);
  await settleAll(house);
  expect(await keptBy(house)).toEqual([]);
  expect(await claims(house)).toEqual([]);
});

test('the same card kept anew takes the place of the one before, which is dropped; a removed one is dropped', async () => {
  const house = await foundHouse();
  for (let times = 0; times < 2; times++) {
    const token = await cardToken(workshop.standIns, 'corvid-good');
    await addCardAtDesk(house.owner, house.customerId, token, randomUUID(), given);
  }
  await settleAll(house);
  expect((await onFile(house)).length).toBe(1);
  expect(await keptBy(house)).toEqual(await onFile(house));
  const [card] = await rows<{ id: string }>('select id from cards where business_id = $1', [house.business.id]);
  await removeAtDesk(house.owner, card?.id ?? '');
  expect(await keptBy(house)).toEqual([]);
  expect(await claims(house)).toEqual([]);
});

test('the nightly proof finds a card that nobody here knows and has it dropped, and one on file that is not kept', async () => {
  const house = await foundHouse();
  const token = await cardToken(workshop.standIns, 'corvid-good');
  await addCardAtDesk(house.owner, house.customerId, token, randomUUID(), given);
  expect(await checkBooks()).toEqual([]);
  await services().cards.keepCard(token, `${house.business.id}.stray`);
  expect(await checkBooks()).toEqual([]);
  await fetch(`${workshop.standIns}/clock`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: '{"advanceDays":1}',
  });
  expect((await checkBooks()).map(({ what }) => what)).toEqual(['a card is kept that is on no file']);
  await settleAll(house);
  expect(await checkBooks()).toEqual([]);
  await services().cards.dropCard((await onFile(house))[0] ?? '');
  expect((await checkBooks()).map(({ what }) => what)).toEqual(['a card on file is not kept']);
});
