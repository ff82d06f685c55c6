/** A year of three hundred plans, day by day on the stand-ins' clock, against what is worked out another way. */
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { instantInZone } from '@/core/dates/zone';
import { USUAL_POLICY } from '@/core/plan/dunning';
import { businessById, updateBusiness } from '@/db/businesses';
import { ledgerTroubles } from '@/db/ledger';
import { inBusiness, readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { settlePayments } from '@/flows/payment/settle-payment';
import { asSuperuser } from '../../../tests/support/database';
import { planTerms, runningPlan, setClock } from '../../../tests/support/plans';
import { seeded } from '../../../tests/support/seeded';
import { pause } from '../../../tests/support/until';
import { foundHouse, type House, openWorkshop, type Workshop } from '../../../tests/support/workshop';
import { type Case, type Rule, yearOf } from '../../../tests/support/year-oracle';
import { chargeDue } from './charge-due';

const PLANS = 300;
const FIRST = '2026-01-05';
const LAST = '2027-01-05';
const RETRY = [2, 5];
const HOLIDAYS = ['2026-05-25', '2026-07-03', '2026-12-25', '2027-01-01'];
const ZONE = 'America/Los_Angeles';
const MINUTES = 60_000;

let workshop: Workshop;
let house: House;
beforeAll(async () => {
  workshop = await openWorkshop();
  house = await foundHouse();
  await inBusiness(programContext(house.business.id), async (tx) => {
    const business = await businessById(tx);
    const holidays = HOLIDAYS.map((on) => ({ on, name: 'Day off' }));
    await updateBusiness(tx, { ...business, charging: { ...USUAL_POLICY, retryDays: RETRY, holidays } });
  });
});
afterAll(() => workshop.close());

const random = seeded(5);
const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
const day = (offset: number): string =>
  new Date(Date.parse(`${FIRST}T00:00:00Z`) + offset * 86_400_000).toISOString().slice(0, 10);

/** Cards that may be tried again: only where dates lie far apart, or two charges of a day would take each other's turn. */
const SLOW_CARDS = [
  ['corvid-second'],
  ['corvid-poor'],
  ['corvid-silent'],
  ['corvid-blocked'],
  ['lumen-approval'],
  ['lumen-ending'],
  ['corvid-blocked', 'lumen-good'],
  ['corvid-poor', 'corvid-good'],
  ['lumen-replaced'],
] as const;
const GOOD = [['corvid-good'], ['lumen-good'], ['lumen-replaced']] as const;

function oneCase(index: number): Case {
  const shift = pick(['none', 'next', 'previous', 'skip'] as const);
  const start = day(Math.floor(random() * 50));
  const total = 1100 + 110 * Math.floor(random() * 40);
  const base = { kind: 'membership', total, deposit: 0, leftover: 'even' } as const;
  // A weekday that is always left out would leave no date at all.
  const kept = shift === 'skip' ? 'next' : shift;
  const rule = (part: Partial<Rule>): Rule => ({ unit: 'month', every: 1, start, ends: 'never', shift, ...part });
  // Two charges of a plan moved to one day are no trouble, but no order is promised between them.
  const slow = { ...base, cards: pick(SLOW_CARDS) };
  const good = { ...base, cards: pick(GOOD) };
  switch (index % 10) {
    case 0:
    case 1:
      return { ...slow, rule: rule({}) };
    case 2:
      return { ...slow, rule: rule({ every: pick([2, 3]), ends: { after: pick([2, 3, 4]) } }) };
    case 3:
      return { ...good, rule: rule({ monthDays: pick([[1, 15], ['last'], [31], [5, 20, 'last']] as const) }) };
    case 4:
      return {
        ...good,
        rule: rule({ unit: 'week', every: pick([2, 3, 4]), ends: { on: day(120 + index) }, shift: kept }),
      };
    case 5:
      return {
        ...good,
        rule: rule({ unit: 'week', every: 4, weekdays: pick([[1, 4], [6], [2, 7]] as const), shift: kept }),
      };
    case 6:
      return { ...good, rule: rule({ unit: 'day', every: pick([10, 17, 45]), ends: { after: 6 } }) };
    case 7:
      return { ...slow, rule: rule({ unit: 'year', every: 1 }) };
    case 8: {
      const count = pick([3, 6, 7]);
      const whole = 11_000 + 1100 * Math.floor(random() * 30);
      const deposit = random() < 0.5 ? whole / 5 : 0;
      const leftover = pick(['even', 'last'] as const);
      return {
        kind: 'instalments',
        total: whole,
        deposit,
        leftover,
        cards: pick(GOOD),
        rule: rule({ ends: { after: count } }),
      };
    }
    default:
      return { ...slow, rule: rule({ monthDays: [pick([28, 29, 30, 31])], every: 2 }) };
  }
}

async function play(on: string): Promise<void> {
  await setClock(workshop.standIns, instantInZone(on as CalendarDate, '09:05', ZONE));
  await chargeDue(house.business.id, { runMs: Number.POSITIVE_INFINITY });
  // What was asked about may lead to another card on the same day.
  while (await settleOpen()) await chargeDue(house.business.id, { runMs: Number.POSITIVE_INFINITY });
}

/** Asks about what got no answer in time, as the worker does. Returns whether there was anything. */
async function settleOpen(): Promise<boolean> {
  for (let tries = 0; tries < 60; tries++) {
    const open = await asSuperuser<{ id: string }>(workshop.admin, `select id from payments where state = 'pending'`);
    if (open.length === 0) return tries > 0;
    await pause(200);
    await settlePayments(
      house.business.id,
      open.map(({ id }) => id),
    );
  }
  throw new Error('A payment stays open');
}

test(
  'every charge of a year is made on its day, for its sum, as often as it must be, and no other',
  async () => {
    await setClock(workshop.standIns, instantInZone(FIRST as CalendarDate, '08:00', ZONE));
    const cases = Array.from({ length: PLANS }, (_, index) => oneCase(index));
    const ids: string[] = [];
    for (const one of cases) {
      const price = String(one.total / 110);
      const { unit, every, start, ends, shift, monthDays, weekdays } = one.rule;
      const terms = planTerms(house, start, {
        kind: one.kind,
        price,
        deposit: one.deposit > 0 ? '20%' : '',
        leftover: one.leftover,
        schedule: {
          unit,
          every,
          ends: ends as 'never',
          shift,
          ...(monthDays ? { monthDays } : {}),
          ...(weekdays ? { weekdays } : {}),
        },
      });
      ids.push((await runningPlan(house, workshop.standIns, { ...terms, receipts: false }, one.cards)).id);
    }
    // Two whose card answers late, now and then: unknown at first, asked about, charged once.
    const late = planTerms(house, day(20), { schedule: { every: 6 } });
    const lateIds: string[] = [];
    for (const _ of [1, 2]) lateIds.push((await runningPlan(house, workshop.standIns, late, ['corvid-late'])).id);
    for (let offset = 0; day(offset) <= LAST; offset++) await play(day(offset));

    const rows = await asSuperuser<{ plan: string; on: string; amount: number; state: 'paid' | 'refused' }>(
      workshop.admin,
      `select charges.plan_id as plan, to_char(payments.started_at at time zone $1, 'YYYY-MM-DD') as "on",
         payments.amount_minor::int as amount, payments.state
       from payments join charges on charges.id = payments.charge_id order by payments.started_at`,
      [ZONE],
    );
    const states = new Map(
      (await asSuperuser<{ id: string; state: string }>(workshop.admin, 'select id, state from plans')).map((plan) => [
        plan.id,
        plan.state,
      ]),
    );
    const sorted = (list: readonly { on: string; amount: number; state: string }[]) =>
      list.map(({ on, amount, state: said }) => `${on} ${amount} ${said}`).sort();
    let compared = 0;
    for (const [index, one] of cases.entries()) {
      const wanted = yearOf(one, FIRST, LAST, HOLIDAYS, RETRY);
      const ours = rows.filter(({ plan }) => plan === ids[index]);
      expect(sorted(ours), JSON.stringify(one)).toEqual(sorted(wanted.asked));
      expect(states.get(ids[index] ?? '') === 'paused', JSON.stringify(one)).toBe(wanted.paused);
      compared += wanted.asked.length;
    }
    expect(compared).toBeGreaterThan(2000);
    for (const id of lateIds)
      expect(rows.filter(({ plan }) => plan === id).map(({ on, state: said }) => `${on} ${said}`)).toEqual([
        `${day(20)} paid`,
        '2026-07-25 paid',
      ]);

    // The processor's book says the same, and ours balances.
    const book = await fetch(`${workshop.standIns}/cards/api/book`, { headers: { authorization: 'Bearer test-key' } });
    const { sales } = (await book.json()) as { sales: { status: string; amount: number }[] };
    const theirs = sales.filter(({ status }) => status === 'accepted').reduce((sum, { amount }) => sum + amount, 0);
    expect(theirs).toBe(rows.filter(({ state: said }) => said === 'paid').reduce((sum, { amount }) => sum + amount, 0));
    expect(await readBusiness(programContext(house.business.id), (db) => ledgerTroubles(db))).toEqual([]);
  },
  20 * MINUTES,
);

test(
  'an hour that comes twice in autumn, and a clock that is put back, charge nothing twice',
  async () => {
    const other = await foundHouse('Early Birds');
    await inBusiness(programContext(other.business.id), async (tx) => {
      const business = await businessById(tx);
      await updateBusiness(tx, { ...business, charging: { ...USUAL_POLICY, hour: '01:30' } });
    });
    // In this zone the clocks go back on 7 November 2027 at two in the morning.
    await setClock(workshop.standIns, new Date('2027-11-06T20:00:00Z'));
    const { id } = await runningPlan(other, workshop.standIns, planTerms(other, '2027-11-07'));
    const attempts = () =>
      asSuperuser<{ n: number }>(
        workshop.admin,
        'select count(*)::int as n from payments join charges on charges.id = charge_id where plan_id = $1',
        [id],
      ).then(([row]) => row?.n);
    for (const [instant, wanted] of [
      ['2027-11-07T08:29:00Z', 0], // 01:29, the first time
      ['2027-11-07T08:31:00Z', 1], // 01:31, the first time
      ['2027-11-07T09:31:00Z', 1], // 01:31, the second time
      ['2027-11-07T08:00:00Z', 1], // put back
      ['2027-11-07T08:45:00Z', 1],
    ] as const) {
      await setClock(workshop.standIns, new Date(instant));
      await chargeDue(other.business.id);
      expect(await attempts(), instant).toBe(wanted);
    }
  },
  5 * MINUTES,
);
