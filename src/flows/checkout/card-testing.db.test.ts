import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, test } from 'vitest';
import type { Work } from '@/flows/door/work';
import { lostCard, PRETEND_CARDS } from '../../../standins/cards/pretend-cards';
import { asSuperuser } from '../../../tests/support/database';
import { orderAttempt, placedOffer } from '../../../tests/support/offers';
import { foundHouse, type House, sharedWorkshop, tokenOf, workDone } from '../../../tests/support/workshop';
import { takeOrder } from './take-order';

const workshop = await sharedWorkshop({ CARD_ATTEMPTS_PER_OFFER: '5000' });
let house: House;
beforeEach(async () => {
  house = await foundHouse();
});

const placed = () => placedOffer(house, { title: 'Spring concert', prices: { USD: '40' } });
const attempt = (called: string, card?: string) => orderAttempt(workshop, called, {}, card);
const buy = async (called: string, card?: string) => takeOrder(called, await attempt(called, card), randomUUID());

describe('whoever tries out many cards', () => {
  test('has to work for each, once, for this offer and no other', async () => {
    const { called } = await placed();
    const other = await placed();
    const used = await attempt(called);
    await takeOrder(called, used, 'a');
    const again = { ...(await attempt(called)), work: used.work };
    await expect(takeOrder(called, again, 'a')).rejects.toMatchObject({ code: 'not-a-robot' });
    const elsewhere = { ...(await attempt(called)), work: await workDone(other.called) };
    await expect(takeOrder(called, elsewhere, 'a')).rejects.toMatchObject({ code: 'not-a-robot' });
    const easier = await attempt(called);
    const parameters = { ...easier.work.challenge.parameters, keyPrefix: '0' };
    const altered = { ...easier, work: { ...easier.work, challenge: { ...easier.work.challenge, parameters } } };
    await expect(takeOrder(called, altered, 'a')).rejects.toMatchObject({ code: 'not-a-robot' });
    const none = { ...(await attempt(called)), work: {} as never };
    await expect(takeOrder(called, none, 'a')).rejects.toMatchObject({ code: 'not-a-robot' });
  });

  test('is stopped by address and by card, the work grows, and the business is told once', async () => {
    const { called } = await placed();
    const tried = async (card: string, address: string) =>
      takeOrder(called, await attempt(called, card), address).then(
        ({ state }) => state,
        ({ code }) => code as string,
      );
    // One card from many addresses: five times.
    const byCard = [];
    for (let at = 0; at < 8; at++) byCard.push(await tried('corvid-poor', `many-${randomUUID()}`));
    expect(byCard).toEqual([...Array(5).fill('refused'), ...Array(3).fill('too-many-attempts')]);
    expect((await workDone(called)).challenge.parameters.keyPrefix).toBe('00');
    // Many cards from one address: ten times. All refused ones are of this business.
    const refusing = PRETEND_CARDS.filter(({ behaviour }) =>
      ['over-limit', 'card-blocked', 'wrong-security-number', 'refused'].includes(behaviour),
    ).map(({ name }) => name);
    const one = `one-${randomUUID()}`;
    const byAddress = [];
    for (let at = 0; at < 15; at++) byAddress.push(await tried(refusing[at % refusing.length] ?? '', one));
    expect(byAddress.slice(0, 10)).toEqual(Array(10).fill('refused'));
    expect(byAddress.slice(10)).toEqual(Array(5).fill('too-many-attempts'));
    for (let at = 0; at < 6; at++) await tried(refusing[at % refusing.length] ?? '', randomUUID());
    expect((await workDone(called)).challenge.parameters.keyPrefix).toBe('000');
    const notices = await asSuperuser<{ details: { subject: string } }>(
      workshop.admin,
      `select details from messages where business_id = $1 and kind = 'notice'`,
      [house.business.id],
    );
    expect(notices.map(({ details }) => details.subject)).toEqual(['Many refused cards: Spring concert']);
    // An honest payer notices nothing.
    expect(await tried('corvid-good', randomUUID())).toBe('paid');
  });
});

test('whoever tries 500 cards gets few of them to the processor, the business is told, and an honest payer notices nothing', async () => {
  const { called } = await placed();
  const stale = await attempt(called);
  const told: Record<string, number> = {};
  await Promise.all(
    Array.from({ length: 2 }, async (_, who) => {
      const address = randomUUID();
      let blocked = false;
      for (let at = 0; at < 250; at++) {
        const token = await tokenOf(workshop.standIns, lostCard(who * 250 + at).number);
        const press = { ...stale, checkoutKey: randomUUID(), attemptKey: randomUUID(), cardToken: token };
        // Once turned away, nobody does the work any more.
        const work: Work = blocked ? stale.work : await workDone(called);
        const end: string = await takeOrder(called, { ...press, work }, address).then(
          ({ state }) => state,
          (error) => String(error.code),
        );
        blocked ||= end === 'too-many-attempts';
        told[end] = (told[end] ?? 0) + 1;
      }
    }),
  );
  // Ten refused cards an address, and none accepted; all other tries ended before the processor.
  const reached = told.refused ?? 0;
  expect(reached).toBe(20);
  expect(told.paid ?? 0).toBe(0);
  expect(Object.values(told).reduce((a, b) => a + b, 0)).toBe(500);
  const notices = await asSuperuser<{ subject: string }>(
    workshop.admin,
    `select details->>'subject' as subject from messages where business_id = $1 and kind = 'notice'`,
    [house.business.id],
  );
  expect(notices).toEqual([{ subject: 'Many refused cards: Spring concert' }]);
  expect(await buy(called)).toMatchObject({ state: 'paid' });
});

test('one card is tried five times an hour, whatever tokens and addresses it comes under', async () => {
  const { called } = await placed();
  for (let at = 0; at < 5; at++) expect(await buy(called, 'corvid-silent')).toMatchObject({ state: 'refused' });
  await expect(buy(called, 'corvid-silent')).rejects.toMatchObject({ code: 'too-many-attempts' });
  expect(await buy(called)).toMatchObject({ state: 'paid' });
});
