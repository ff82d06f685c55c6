import { beforeEach, expect, test } from 'vitest';
import type { PlanTerms } from '@/core/plan/plan';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { asSuperuser } from '../../../tests/support/database';
import { watchedPlans } from '../../../tests/support/plan-house';
import { planTerms, runningPlan } from '../../../tests/support/plans';
import { foundHouse, type House, mailOf, sharedWorkshop } from '../../../tests/support/workshop';
import { moveCharge } from './change-charge';
import { cancelPlan, pausePlan } from './change-plan';
import { acceptChange, changeTerms, lookAtChange, withdrawProposal } from './change-terms';
import { planPage } from './plan-page';

const workshop = await sharedWorkshop();
let house: House;
let watched: ReturnType<typeof watchedPlans>;
beforeEach(async () => {
  house = await foundHouse();
  watched = watchedPlans(workshop, house);
  await watched.clock('2026-03-01', '12:00');
});

const running = (more: Parameters<typeof planTerms>[2] = {}) =>
  runningPlan(house, workshop.standIns, planTerms(house, '2026-03-05', more));
const priced = (terms: PlanTerms, price: string): PlanTerms => ({
  ...terms,
  paper: { ...terms.paper, lines: terms.paper.lines.map((line) => ({ ...line, price })) },
});
const texts = async (planId: string) =>
  (
    await asSuperuser<{ text: string }>(
      workshop.admin,
      'select text from authorisations where plan_id = $1 order by given_at',
      [planId],
    )
  ).map(({ text }) => text);
const linkOf = async (id: string) => (await watched.plan(id)).linkToken;

test('a sum that rises waits for the customer; once they agree it holds, with what was charged and moved as it was', async () => {
  const { id, email } = await running();
  await watched.clock('2026-03-05');
  await watched.due();
  const moved = (await watched.charges(id))[1];
  await moveCharge(house.owner, moved?.id ?? '', '2026-04-09');
  const { terms, revision } = await watched.plan(id);
  const wished = priced(terms, '30.00');
  expect(await lookAtChange(house.owner, id, wished)).toMatchObject({
    needsConsent: true,
    before: expect.stringContaining('$22.00 every month'),
    after: expect.stringContaining('$33.00 every month'),
  });
  expect(await changeTerms(house.owner, id, wished, revision, null)).toBe('asked');
  expect(await watched.told(id, 2)).toEqual(['charged 2026-03-05 2200', 'upcoming 2026-04-09 2200']);
  for (const { id: message } of await asSuperuser<{ id: string }>(
    workshop.admin,
    `select id from messages where plan_id = $1 and kind = 'plan-proposed'`,
    [id],
  ))
    await handOverMessage(house.business.id, message);
  const [mail] = (await mailOf(workshop.standIns, email)).filter(({ subject }) =>
    subject.includes('agree to a change'),
  );
  expect(mail?.text).toContain('$33.00 every month');
  expect(mail?.text).toContain(`/a/${await linkOf(id)}`);
  expect((await planPage(await linkOf(id), 'de'))?.change?.after).toMatch(/33,00\s\$ jeden Monat/);
  await expect(acceptChange(await linkOf(id), { name: ' ', agrees: true }, 'here')).rejects.toMatchObject({
    code: 'authorise-first',
  });
  await acceptChange(await linkOf(id), { name: 'Otto Reed', agrees: true }, 'here');
  await acceptChange(await linkOf(id), { name: 'Otto Reed', agrees: true }, 'here');
  expect(await watched.told(id, 3)).toEqual([
    'charged 2026-03-05 2200',
    'upcoming 2026-04-09 3300',
    'upcoming 2026-05-05 3300',
  ]);
  expect((await texts(id)).length).toBe(2);
  expect((await texts(id))[1]).toContain('$33.00 every month');
  expect((await watched.kinds(id)).filter((kind) => kind === 'plan-changed')).toEqual(['plan-changed']);
  await watched.clock('2026-04-09');
  await watched.due();
  expect((await watched.told(id, 2))[1]).toBe('charged 2026-04-09 3300');
  expect(await watched.troubles()).toEqual([]);
});

test('another rhythm begins on its own day: nothing that is past is charged, nothing begins again', async () => {
  const { id } = await running({ setUp: '5.00', freeFirst: true, firstNow: true });
  await watched.due();
  await watched.clock('2026-04-05');
  await watched.due();
  const { terms, revision } = await watched.plan(id);
  const on = (start: string): PlanTerms => ({
    ...terms,
    schedule: { unit: 'week', every: 2, start: start as never, ends: { after: 3 } },
  });
  await expect(changeTerms(house.owner, id, on('2026-01-01'), revision, null)).rejects.toMatchObject({
    code: 'plan-not-ready',
  });
  const given = { how: 'telephone', givenBy: 'Otto Reed', fileId: null } as const;
  expect(await changeTerms(house.owner, id, on('2026-04-20'), revision, given)).toBe('changed');
  expect((await watched.told(id)).slice(-3)).toEqual([
    'upcoming 2026-04-20 2200',
    'upcoming 2026-05-04 2200',
    'upcoming 2026-05-18 2200',
  ]);
  await watched.due();
  await watched.playUntil('2026-04-06', '2026-05-18');
  expect((await watched.charges(id)).map(({ state }) => state)).toEqual([
    'charged',
    'charged',
    'charged',
    'charged',
    'charged',
  ]);
  expect(await watched.plan(id)).toMatchObject({ state: 'finished' });
  expect(await watched.troubles()).toEqual([]);
});

test('a lower sum holds at once; an older picture of the plan changes nothing; a proposal can be taken back', async () => {
  const { id } = await running();
  const { terms, revision } = await watched.plan(id);
  expect(await changeTerms(house.owner, id, priced(terms, '10.00'), revision, null)).toBe('changed');
  expect((await watched.told(id, 1))[0]).toBe('upcoming 2026-03-05 1100');
  await expect(changeTerms(house.owner, id, priced(terms, '5.00'), revision, null)).rejects.toMatchObject({
    code: 'plan-changed-elsewhere',
  });
  const now = await watched.plan(id);
  expect(await changeTerms(house.owner, id, priced(terms, '90.00'), now.revision, null)).toBe('asked');
  await withdrawProposal(house.owner, id);
  await acceptChange(await linkOf(id), { name: 'Otto Reed', agrees: true }, 'here');
  expect((await watched.told(id, 1))[0]).toBe('upcoming 2026-03-05 1100');
  await cancelPlan(house.owner, id, false);
  await expect(changeTerms(house.owner, id, terms, (await watched.plan(id)).revision, null)).rejects.toMatchObject({
    code: 'plan-ended',
  });
});

test('a pause with an end goes on by itself from that day, and leaves out what falls into it', async () => {
  const { id } = await running();
  await expect(pausePlan(house.owner, id, '2026-03-01')).rejects.toMatchObject({ code: 'no-such-day' });
  await pausePlan(house.owner, id, '2026-05-05');
  expect(await watched.plan(id)).toMatchObject({ state: 'active', nextOn: '2026-05-05' });
  await watched.playUntil('2026-03-05', '2026-05-05');
  expect((await watched.told(id, 2))[0]).toBe('charged 2026-05-05 2200');
  expect(await watched.troubles()).toEqual([]);
});
