import { beforeEach, expect, test } from 'vitest';
import { cardsOf } from '@/db/cards';
import { chargesOfPlan } from '@/db/charges';
import { customerById } from '@/db/customers';
import { invoiceById } from '@/db/invoices';
import { readBusiness } from '@/db/transaction';
import { doDueWork } from '@/flows/day/due-work';
import { todayView } from '@/flows/day/today';
import { programContext } from '@/flows/door/program';
import { asSuperuser } from '../../../tests/support/database';
import { watchedPlans } from '../../../tests/support/plan-house';
import { planTerms, runningPlan } from '../../../tests/support/plans';
import { foundHouse, type House, sharedWorkshop } from '../../../tests/support/workshop';
import { planAgreement } from './agreement';
import { chargeAgain, moveCharge, priceOnce, settleMissed, skipCharge, waiveCharge } from './change-charge';
import { cancelPlan, changeAmount, pausePlan, resumePlan } from './change-plan';
import { keepPlan, startAtDesk } from './plans';

const workshop = await sharedWorkshop();
let house: House;
let watched: ReturnType<typeof watchedPlans>;
beforeEach(async () => {
  house = await foundHouse();
  watched = watchedPlans(workshop, house);
});

const plan = (start: string, more: Parameters<typeof planTerms>[2] = {}, cards?: string[]) =>
  runningPlan(house, workshop.standIns, planTerms(house, start, more), cards);
const db = <T>(work: Parameters<typeof readBusiness<T>>[1]) => readBusiness(programContext(house.business.id), work);
const idOf = async (planId: string, at: number) => (await watched.charges(planId))[at]?.id ?? '';

test('a charge that is moved to a day that is past is only made where somebody is sure', async () => {
  await watched.clock('2026-03-01', '12:00');
  const { id } = await plan('2026-03-20');
  const first = await idOf(id, 0);
  await expect(moveCharge(house.owner, first, '2026-02-20')).rejects.toMatchObject({ code: 'charges-now' });
  // Today's hour has gone by, too.
  await expect(moveCharge(house.owner, first, '2026-03-01')).rejects.toMatchObject({ code: 'charges-now' });
  await watched.due();
  expect((await watched.told(id, 1))[0]).toBe('upcoming 2026-03-20 2200');
  await moveCharge(house.owner, first, '2026-02-20', true);
  await watched.due();
  expect((await watched.told(id, 1))[0]).toBe('charged 2026-02-20 2200');
});

test('what was decided about single dates stays when the price changes, and over a pause', async () => {
  await watched.clock('2026-03-01', '12:00');
  const { id } = await plan('2026-03-20');
  await moveCharge(house.owner, await idOf(id, 0), '2026-03-25');
  await priceOnce(house.owner, await idOf(id, 1), '50.00');
  await skipCharge(house.owner, await idOf(id, 2));
  await waiveCharge(house.owner, await idOf(id, 3));
  const decided = [
    'upcoming 2026-03-25 2200',
    'upcoming 2026-04-20 5500',
    'skipped 2026-05-20 2200',
    'waived 2026-06-20 2200',
    'upcoming 2026-07-20 2200',
  ];
  expect(await watched.told(id)).toEqual(decided);
  await pausePlan(house.owner, id);
  await resumePlan(house.owner, id);
  expect(await watched.told(id)).toEqual(decided);
  await changeAmount(house.owner, id, '30.00');
  expect(await watched.told(id)).toEqual([
    'upcoming 2026-03-25 3300',
    'upcoming 2026-04-20 5500',
    'skipped 2026-05-20 2200',
    'waived 2026-06-20 2200',
    'upcoming 2026-07-20 3300',
  ]);
  // What is billed then is what stands there.
  await watched.playUntil('2026-03-25', '2026-04-20');
  expect((await watched.told(id)).slice(0, 2)).toEqual(['charged 2026-03-25 3300', 'charged 2026-04-20 5500']);
  await expect(priceOnce(house.owner, await idOf(id, 4), 'abc')).rejects.toMatchObject({ code: 'plan-not-ready' });
  expect(await watched.troubles()).toEqual([]);
});

test.each([
  ['ask', ['upcoming', 'upcoming', 'upcoming']],
  ['last', ['skipped', 'skipped', 'charged']],
  ['all', ['charged', 'charged', 'charged']],
] as const)('after idle weeks, with %s, several missed charges are %s', async (missed, states) => {
  await watched.policy({ missed });
  await watched.clock('2026-03-01', '12:00');
  const { id } = await plan('2026-03-05', { schedule: { unit: 'week' } });
  const other = await plan('2026-03-20', {});
  await watched.clock('2026-03-20');
  await watched.due();
  expect((await watched.charges(id)).slice(0, 3).map(({ state }) => state)).toEqual(states);
  // One that was due today alone is charged as ever.
  expect((await watched.charges(other.id))[0]?.state).toBe('charged');
  await watched.due();
  expect((await watched.charges(id)).slice(0, 3).map(({ state }) => state)).toEqual(states);
  const { queue } = await todayView(house.owner);
  expect(queue.filter(({ kind }) => kind === 'missed').length).toBe(missed === 'ask' ? 1 : 0);
  if (missed !== 'ask') return;
  await settleMissed(house.owner, id, 'last');
  await watched.due();
  expect((await watched.charges(id)).slice(0, 4).map(({ state }) => state)).toEqual([
    'skipped',
    'skipped',
    'charged',
    'upcoming',
  ]);
  await expect(settleMissed(house.owner, id, 'all')).rejects.toMatchObject({ code: 'charge-settled' });
  expect((await todayView(house.owner)).queue.filter(({ kind }) => kind === 'missed')).toEqual([]);
});

test('all missed ones are charged once somebody says so, also where only one fits into a claim', async () => {
  await watched.policy({ missed: 'ask' });
  await watched.clock('2026-03-01', '12:00');
  const { id } = await plan('2026-03-05', { schedule: { unit: 'week' } });
  await watched.clock('2026-03-20');
  const { chargeDue } = await import('@/flows/charging/charge-due');
  await chargeDue(house.business.id, { atOnce: 1 });
  expect((await watched.charges(id)).slice(0, 3).map(({ state }) => state)).toEqual([
    'upcoming',
    'upcoming',
    'upcoming',
  ]);
  await settleMissed(house.owner, id, 'all');
  await chargeDue(house.business.id, { atOnce: 1 });
  expect((await watched.charges(id)).slice(0, 3).map(({ state }) => state)).toEqual(['charged', 'charged', 'charged']);
  expect(await watched.troubles()).toEqual([]);
});

test('what is waived or cancelled leaves what is owed, by a credit note, and no reminder goes out', async () => {
  await watched.clock('2026-03-01', '12:00');
  const { id } = await plan('2026-03-05', { schedule: { unit: 'week' } }, ['corvid-poor']);
  await watched.clock('2026-03-05');
  await watched.due();
  await watched.clock('2026-03-12');
  await watched.due();
  const [one, two] = await watched.charges(id);
  expect([one?.state, two?.state]).toEqual(['refused', 'refused']);
  await waiveCharge(house.owner, one?.id ?? '');
  const owed = async (invoiceId: string | null | undefined) =>
    (await db((tx) => invoiceById(tx, invoiceId ?? '')))?.dueMinor;
  expect([await owed(one?.invoiceId), await owed(two?.invoiceId)]).toEqual([0n, 2200n]);
  await cancelPlan(house.owner, id, false);
  expect(await owed(two?.invoiceId)).toBe(0n);
  const notes = await asSuperuser<{ count: string }>(
    workshop.admin,
    'select count(*) from credit_notes where business_id = $1',
    [house.business.id],
  );
  expect(notes[0]?.count).toBe('2');
  expect((await todayView(house.owner)).queue.filter(({ kind }) => kind === 'charge' || kind === 'late')).toEqual([]);
  expect(await watched.troubles()).toEqual([]);
});

test('a balance in parts that is cancelled stays owed or is given up, as somebody says', async () => {
  for (const keepOwed of [true, false]) {
    await watched.clock('2026-03-01', '12:00');
    const { id } = await plan('2026-03-05', { kind: 'instalments', price: '100.00', schedule: { ends: { after: 4 } } });
    await watched.clock('2026-03-05');
    await watched.due();
    await cancelPlan(house.owner, id, false, keepOwed);
    const { invoiceId, state } = await watched.plan(id);
    expect({ state, due: (await db((tx) => invoiceById(tx, invoiceId ?? '')))?.dueMinor }).toEqual({
      state: 'cancelled',
      due: keepOwed ? 8250n : 0n,
    });
  }
  expect(await watched.troubles()).toEqual([]);
});

test('cancelled for the end of the period that is paid for, a plan runs until then, counts as cancelled, and both are told', async () => {
  await watched.clock('2026-03-01', '12:00');
  const { id } = await plan('2026-03-05');
  await watched.clock('2026-03-05');
  await watched.due();
  await cancelPlan(house.owner, id, true);
  expect(await watched.plan(id)).toMatchObject({ state: 'active', endsOn: '2026-04-05', nextOn: null });
  await watched.clock('2026-04-04', '23:00');
  await doDueWork(house.business.id, 'lapses');
  expect((await watched.plan(id)).state).toBe('active');
  await watched.clock('2026-04-05', '00:10');
  await doDueWork(house.business.id, 'lapses');
  expect(await watched.plan(id)).toMatchObject({ state: 'cancelled', endsOn: null });
  expect((await watched.kinds(id)).filter((kind) => /^plan-/.test(kind)).sort()).toEqual([
    'plan-ended',
    'plan-ending',
    'plan-over',
  ]);
  await watched.clock('2026-04-06');
  await watched.due();
  expect((await watched.told(id)).length).toBe(1);
});

test('a plan’s cards are its own, in an order: the chosen first, then the second; another one only where a person says so', async () => {
  await watched.policy({ secondCard: true });
  await watched.clock('2026-03-01', '12:00');
  const { customerId } = await plan('2027-01-01', {}, ['lumen-good', 'corvid-poor', 'corvid-good']);
  const [lumen, poor, corvid] = await db((tx) => cardsOf(tx, customerId));
  const terms = planTerms(house, '2026-03-05');
  const { id } = await keepPlan(house.owner, null, {
    terms: { ...terms, paper: { ...terms.paper, customerId } },
    memo: '',
    reference: '',
  });
  const given = { how: 'telephone', givenBy: 'Otto Reed', fileId: null } as const;
  await startAtDesk(house.owner, id, { cardId: poor?.id ?? '' }, given, corvid?.id ?? '');
  await watched.clock('2026-03-05');
  await watched.due();
  const [charge] = await watched.charges(id);
  expect(charge).toMatchObject({ state: 'charged', tried: [poor?.id, corvid?.id], cardId: corvid?.id });
  await chargeAgain(house.owner, await idOf(id, 1), lumen?.id ?? '');
  await watched.due();
  expect((await watched.charges(id))[1]).toMatchObject({ state: 'charged', cardId: lumen?.id });
  // Nobody else's card, and none that is not there.
  const other = await plan('2027-01-01', {}, ['corvid-good']);
  const [theirs] = await db((tx) => cardsOf(tx, other.customerId));
  for (const cardId of [theirs?.id ?? '', crypto.randomUUID()])
    await expect(chargeAgain(house.owner, await idOf(id, 2), cardId)).rejects.toMatchObject({ code: 'not-found' });
});

test('what is agreed to at the desk says sum, rhythm, first day and until when, in the customer’s language', async () => {
  await watched.clock('2026-03-01', '12:00');
  const terms = planTerms(house, '2026-03-05', { schedule: { ends: { after: 6 } } });
  const { id } = await keepPlan(house.owner, null, { terms, memo: '', reference: '' });
  const { text, script } = await planAgreement(house.owner, id);
  expect(text).toContain(
    '$22.00 every month. The first is $22.00 on March 5, 2026. 6 payments, the last on August 5, 2026. In all: $132.00.',
  );
  expect(script).toContain(text);
  expect(script).toContain('say your full name');
  expect(await db((tx) => chargesOfPlan(tx, id))).toEqual([]);
  expect((await db((tx) => customerById(tx, house.customerId)))?.id).toBe(house.customerId);
});
