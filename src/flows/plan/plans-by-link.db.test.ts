/** Plans that the customer accepts and follows by links of their own. */
import { randomUUID } from 'node:crypto';
import { describe, expect, test } from 'vitest';
import { cardsOf } from '@/db/cards';
import { readBusiness } from '@/db/transaction';
import type { Context } from '@/flows/door/operation';
import { programContext } from '@/flows/door/program';
import { asSuperuser } from '../../../tests/support/database';
import { planInstant, watchedPlans } from '../../../tests/support/plan-house';
import { planTerms, runningPlan } from '../../../tests/support/plans';
import { cardToken, foundHouse, sharedWorkshop } from '../../../tests/support/workshop';
import { askForCards } from './ask-for-cards';
import { removeAtDesk } from './cards-on-file';
import { lapse } from './lapse';
import { ownPageToken } from './links';
import { doOnOwnPage, ownPage } from './own-page';
import { acceptPlan, keepPlan, sendPlan, startAtDesk } from './plans';
import { remindWaiting } from './remind-waiting';
import { tellBefore } from './tell-before';

const workshop = await sharedWorkshop();
const house = await foundHouse();
const { clock, due, plan, told, kinds, troubles } = watchedPlans(workshop, house);

/** What the clock brings to plans beside their charges. */
async function whatPlansNeed(ctx: Context): Promise<void> {
  for (const concern of [lapse, tellBefore, remindWaiting, askForCards]) await concern(ctx);
}

describe('by link', () => {
  test('it waits for the card, reminds, is accepted once, and lapses where nobody comes', async () => {
    await clock('2026-11-02', '12:00');
    const terms = planTerms(house, '2026-11-15', { noticeDays: 3 });
    const first = await keepPlan(house.owner, null, { terms, memo: '', reference: 'A-1' });
    const second = await keepPlan(house.owner, null, { terms, memo: '', reference: '' });
    for (const { id } of [first, second]) await sendPlan(house.owner, id, 'mail');
    await clock('2026-11-08', '12:00');
    await whatPlansNeed(programContext(house.business.id, planInstant('2026-11-08', '12:00')));
    expect(await kinds(first.id)).toEqual(['plan-link', 'plan-reminder']);
    const { linkToken } = await plan(first.id);
    const accepted = { key: randomUUID(), name: 'Perpetua Vane', agrees: true };
    const press = async () =>
      acceptPlan(
        linkToken,
        { ...accepted, cardToken: await cardToken(workshop.standIns, 'lumen-ending') },
        '203.0.113.9',
      );
    await expect(acceptPlan(linkToken, { ...accepted, agrees: false, cardToken: 'x' }, '203.0.113.9')).rejects.toThrow(
      'authorisation',
    );
    await Promise.all([press(), press()]);
    expect(await plan(first.id)).toMatchObject({ state: 'active', nextOn: '2026-11-15' });
    const given = await asSuperuser(
      workshop.admin,
      'select how, given_by, given_from, text from authorisations where plan_id = $1',
      [first.id],
    );
    expect(given).toMatchObject([{ how: 'ticked', given_by: 'Perpetua Vane', given_from: '203.0.113.9' }]);
    // Told three days before, once; and asked for a new card, since this one ends with the month.
    for (const day of ['2026-11-11', '2026-11-12', '2026-11-13'])
      await whatPlansNeed(programContext(house.business.id, planInstant(day, '12:00')));
    expect((await kinds(first.id)).filter((kind) => kind === 'charge-notice')).toHaveLength(1);
    const asked = await asSuperuser(
      workshop.admin,
      `select id from messages where kind = 'card-asked' and customer_id = $1`,
      [house.customerId],
    );
    expect(asked).toHaveLength(1);
    await clock('2026-12-20', '12:00');
    await whatPlansNeed(programContext(house.business.id, planInstant('2026-12-20', '12:00')));
    expect((await plan(second.id)).state).toBe('cancelled');
  });

  test('no card is kept and nothing begins without an authorisation', async () => {
    const { id } = await keepPlan(house.owner, null, {
      terms: planTerms(house, '2027-01-10'),
      memo: '',
      reference: '',
    });
    await expect(startAtDesk(house.owner, id, { cardToken: 'tok', key: randomUUID() }, null)).rejects.toThrow(
      'authorisation',
    );
    const drawn = { how: 'drawn', givenBy: 'Perpetua', fileId: null } as const;
    await expect(startAtDesk(house.owner, id, { cardToken: 'tok', key: randomUUID() }, drawn)).rejects.toThrow(
      'authorisation',
    );
    expect((await plan(id)).state).toBe('draft');
  });
});

test('a number that the scheme replaced silently goes on being charged, and is shown as it is now; a card taken away is not', async () => {
  await clock('2027-03-01');
  const { id, customerId } = await runningPlan(house, workshop.standIns, planTerms(house, '2027-03-01'), [
    'lumen-replaced',
  ]);
  const cards = () => readBusiness(programContext(house.business.id), (db) => cardsOf(db, customerId));
  await due();
  const [before] = await cards();
  await clock('2027-04-01');
  await due();
  const [after] = await cards();
  expect(after?.id).toBe(before?.id);
  expect(after?.last4).not.toBe(before?.last4);
  expect(after?.fingerprint).not.toBe(before?.fingerprint);
  await removeAtDesk(house.owner, before?.id ?? '');
  await clock('2027-05-01');
  await due();
  expect((await told(id, 3)).map((text) => text.split(' ')[0])).toEqual(['charged', 'charged', 'refused']);
});

test('a customer’s own page: a link that is over or altered opens nothing, and nobody tries out cards there', async () => {
  await clock('2027-07-01', '12:00');
  const { customerId } = await runningPlan(house, workshop.standIns, planTerms(house, '2027-08-01'));
  const now = planInstant('2027-07-01', '12:00');
  const token = ownPageToken(house.business.id, customerId, now);
  expect(await ownPage(token)).toMatchObject({ over: false, name: 'Otto Reed', plans: [{ state: 'active' }] });
  expect(await ownPage(`x${token}`)).toBeNull();
  const card = async () =>
    doOnOwnPage(
      token,
      {
        action: 'card',
        agrees: true,
        name: 'Otto',
        key: randomUUID(),
        cardToken: await cardToken(workshop.standIns, 'lumen-good'),
      },
      '203.0.113.9',
    );
  await expect(
    doOnOwnPage(token, { action: 'card', agrees: false, name: 'Otto' }, '203.0.113.9'),
  ).rejects.toMatchObject({
    code: 'authorise-first',
  });
  for (let tries = 0; tries < 8; tries++) await card();
  await expect(card()).rejects.toMatchObject({ code: 'too-many-attempts' });
  // The same card again and again is one card.
  expect((await ownPage(token))?.cards).toHaveLength(2);
  const other = await runningPlan(house, workshop.standIns, planTerms(house, '2027-08-01'));
  await expect(doOnOwnPage(token, { action: 'withdraw', planId: other.id }, '203.0.113.9')).rejects.toMatchObject({
    code: 'not-found',
  });
  await clock('2027-07-09', '12:00');
  expect(await ownPage(token)).toMatchObject({ over: true, name: '', plans: [], receipts: [] });
  await expect(card()).rejects.toMatchObject({ code: 'link-over' });
});

test('the books balance', async () => {
  expect(await troubles()).toEqual([]);
});
