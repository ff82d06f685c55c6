import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { CalendarDate } from '../dates/calendar-date';
import { leastOf } from '../money/money';
import { completePaper, newLine } from '../paper/paper';
import type { RefusalReason } from '../payment/outcome';
import { lookAhead } from './ahead';
import { type Charge, type ChargeEvent, ChargeSettled, can, after as follow, type NextTry } from './charge';
import { decideCharge } from './due-charge';
import { type Afterwards, USUAL_POLICY } from './dunning';
import { nextTry } from './next-try';
import type { PlanTerms } from './plan';
import { CHARGE_STATES, OPEN_STATES, PAID_STATES } from './state';
import { planReading } from './sums';

const day = (text: string) => text as CalendarDate;
const FIRST: Charge = Object.freeze({
  id: 'c',
  planId: 'p',
  customerId: 'k',
  part: 'period',
  nominal: day('2026-03-01'),
  chargedOn: day('2026-03-01'),
  amountMinor: 2200n,
  currency: 'USD',
  reasons: [],
  state: 'upcoming',
  note: null,
  noticeOn: null,
  actAt: new Date('2026-03-01T09:00:00Z'),
  round: 0,
  attempts: 0,
  tried: [],
  cardId: null,
  lastReason: null,
  invoiceId: null,
  paymentId: null,
  settledAt: null,
  carriedAt: null,
  carriedBy: null,
});

const at = fc.date({ min: new Date('2026-01-01'), max: new Date('2027-01-01'), noInvalidDate: true });
const minor = fc.bigInt(1n, 1_000_000n);
const card = fc.constantFrom('a', 'b', 'c');
const reason = fc.constantFrom<RefusalReason>('not-enough-money', 'card-expired', 'never-charged', 'refused');
const next: fc.Arbitrary<NextTry> = fc.oneof(
  fc.record({ kind: fc.constant('soon' as const), at }),
  fc.record({ kind: fc.constant('other-card' as const), cardId: card, at }),
  fc.record({ kind: fc.constant('retry' as const), at }),
  fc.record({
    kind: fc.constant('give-up' as const),
    afterwards: fc.constantFrom<Afterwards>('pause', 'cancel', 'carry-on'),
  }),
);
const paymentId = fc.uuid();
const event: fc.Arbitrary<ChargeEvent> = fc.oneof(
  fc.constant({ kind: 'held' } as const),
  fc.record({ kind: fc.constant('invoiced' as const), invoiceId: fc.uuid(), amountMinor: minor }),
  fc.record({ kind: fc.constant('asked-for' as const), amountMinor: minor }),
  fc.record({ kind: fc.constant('not-billed' as const), problem: fc.string() }),
  fc.record({ kind: fc.constant('nothing-due' as const), at }),
  fc.record({ kind: fc.constant('attempted' as const), paymentId, cardId: card, amountMinor: minor }),
  fc.record({ kind: fc.constant('accepted' as const), paymentId, at }),
  fc.record({ kind: fc.constant('refused' as const), reason, next }),
  fc.record({
    kind: fc.constant('paid' as const),
    how: fc.constant({ by: 'transfer', reference: 'R 7' } as const),
    paymentId: fc.option(paymentId),
    at,
  }),
  fc.record({ kind: fc.constantFrom('skipped' as const, 'waived' as const), by: fc.string(), at }),
  fc.record({ kind: fc.constant('plan-ended' as const), at }),
  fc.record({
    kind: fc.constant('moved' as const),
    on: fc.constant(day('2026-04-02')),
    noticeOn: fc.constant(null),
    actAt: at,
  }),
  fc.record({ kind: fc.constant('hurried' as const), cardId: fc.option(card), at }),
  fc.record({ kind: fc.constant('retried' as const), at }),
);

const isFinal = ({ state }: Charge): boolean => !OPEN_STATES.some((one) => one === state);

describe('one life of a charge, over events in any order', () => {
  test('what cannot happen changes nothing, and what can keeps every promise', () => {
    const reached = new Set<string>();
    const happened = new Set<string>();
    fc.assert(
      fc.property(fc.array(event, { maxLength: 30 }), (events) => {
        let charge = FIRST;
        for (const one of events) {
          if (!can(charge, one.kind)) {
            expect(() => follow(charge, one)).toThrow(ChargeSettled);
            continue;
          }
          const before = charge;
          charge = Object.freeze(follow(charge, one));
          reached.add(charge.state);
          happened.add(one.kind);
          // Once it is over nothing happens any more: no money comes twice.
          expect(isFinal(before), `${one.kind} after ${before.state}`).toBe(false);
          const { id, planId, customerId, part, nominal, currency } = before;
          expect(charge).toMatchObject({ id, planId, customerId, part, nominal, currency });
          expect(charge.amountMinor > 0n).toBe(true);
          expect(charge.attempts - before.attempts).toBe(one.kind === 'attempted' ? 1 : 0);
          expect(charge.settledAt !== null).toBe(isFinal(charge));
          if (isFinal(charge) || charge.state === 'charging' || charge.state === 'billed')
            expect(charge.actAt).toBeNull();
          if (charge.state === 'charging') expect(charge.paymentId).not.toBeNull();
          if (charge.state === 'charged') expect(before.state === 'charging' || before.state === 'billed').toBe(true);
          if (charge.state === 'waived' || charge.state === 'skipped') expect(charge.note).not.toBeNull();
          if (charge.state === 'refused' && one.kind === 'refused') expect(charge.lastReason).not.toBeNull();
        }
      }),
      { numRuns: 2000, seed: 7 },
    );
    // `free` is where a charge begins, never where one comes to.
    expect([...reached].sort()).toEqual(CHARGE_STATES.filter((state) => state !== 'free').sort());
    expect(happened.size).toBe(15);
  });

  test('while the processor is asked only its answer counts', () => {
    const charging = follow(FIRST, { kind: 'attempted', paymentId: 'x', cardId: 'a', amountMinor: 1n });
    fc.assert(fc.property(event, (one) => can(charging, one.kind) === ['accepted', 'refused'].includes(one.kind)));
  });
});

const NOW = new Date('2026-03-01T17:00:00Z');
const facts = (change: object) => ({
  plan: { state: 'active', pay: 'card', kind: 'membership' } as const,
  invoice: { id: 'i', totalMinor: 2200n, leftMinor: 2200n },
  usable: ['a', 'b'],
  paymentId: 'x',
  now: NOW,
  ...change,
});

describe('what happens with a due charge', () => {
  test.each([
    ['a paused plan holds it', { plan: { state: 'paused', pay: 'card', kind: 'membership' } }, 'held', 'upcoming'],
    ['no invoice can be issued', { invoice: { problem: 'No address' } }, 'not-billed', 'refused'],
    ['somebody paid it already', { invoice: { id: 'i', totalMinor: 2200n, leftMinor: 0n } }, 'settled', 'skipped'],
    [
      'it is asked for by invoice',
      { plan: { state: 'active', pay: 'invoice', kind: 'membership' } },
      'asked-for',
      'billed',
    ],
    ['no card is of any use', { usable: [] }, 'without-card', 'upcoming'],
    ['the first card is asked', {}, 'attempt', 'charging'],
  ])('%s', (_what, change, kind, state) => {
    expect(decideCharge(FIRST, facts(change) as never)).toMatchObject({ kind, charge: { state } });
  });

  test('never more is taken than is left of the invoice, nor than the charge comes to', () => {
    fc.assert(
      fc.property(minor, minor, minor, fc.boolean(), (amountMinor, totalMinor, leftMinor, balance) => {
        const plan = { state: 'active', pay: 'card', kind: balance ? 'instalments' : 'membership' } as const;
        const charge = { ...FIRST, amountMinor, invoiceId: balance ? 'i' : null };
        const decided = decideCharge(charge, facts({ plan, invoice: { id: 'i', totalMinor, leftMinor } }));
        const wanted = balance ? amountMinor : totalMinor;
        expect(decided.charge.amountMinor).toBe(leastOf(leftMinor, wanted));
      }),
    );
  });

  test('a card that was tried is not asked again in the same round, unless it was chosen', () => {
    const tried = { ...FIRST, tried: ['a'] };
    expect(decideCharge(tried, facts({}))).toMatchObject({ kind: 'attempt', cardId: 'b' });
    expect(decideCharge({ ...tried, tried: ['a', 'b'] }, facts({}))).toMatchObject({ kind: 'without-card' });
    expect(decideCharge({ ...tried, cardId: 'a' }, facts({}))).toMatchObject({ kind: 'attempt', cardId: 'a' });
  });
});

describe('when a refused charge is tried next', () => {
  const business = { zone: 'America/Los_Angeles', charging: USUAL_POLICY };
  const asked = (change: object, why: RefusalReason, now = NOW) =>
    nextTry({ chargedOn: day('2026-03-01'), round: 0, tried: ['a'], ...change }, why, business, {
      usable: ['a', 'b'],
      now,
    });

  test('soon where it never reached the processor, with the other card where there is one', () => {
    expect(asked({}, 'never-charged')).toEqual({ kind: 'soon', at: new Date('2026-03-01T17:01:00Z') });
    expect(asked({}, 'not-enough-money')).toEqual({ kind: 'other-card', cardId: 'b', at: NOW });
  });
  test('on the policy’s day at its hour, across the change of the clock; a day that has passed becomes tomorrow', () => {
    const all = { tried: ['a', 'b'] };
    expect(asked(all, 'not-enough-money')).toEqual({ kind: 'retry', at: new Date('2026-03-04T17:00:00Z') });
    expect(asked({ ...all, round: 2 }, 'not-enough-money')).toEqual({
      kind: 'retry',
      at: new Date('2026-03-10T16:00:00Z'),
    });
    expect(asked(all, 'refused', new Date('2026-03-06T20:00:00Z'))).toEqual({
      kind: 'retry',
      at: new Date('2026-03-07T17:00:00Z'),
    });
    expect(asked({ ...all, round: 3 }, 'not-enough-money')).toMatchObject({ kind: 'give-up', afterwards: 'pause' });
  });
});

describe('how far a plan is written down ahead', () => {
  const terms = (ends: PlanTerms['schedule']['ends'], kind: PlanTerms['kind']): PlanTerms => ({
    kind,
    name: 'Care club',
    paper: completePaper({ lines: [newLine('l', 'piece', { what: 'Club', quantity: '1', price: '100' })] }),
    schedule: { unit: 'week', every: 1, start: day('2026-01-05'), ends },
    firstNow: false,
    setUp: '',
    freeFirst: false,
    deposit: '',
    leftover: 'even',
    pay: 'card',
    receipts: true,
    noticeDays: null,
  });
  const setting = { taxes: [], currency: 'USD', pricesIncludeTax: false, home: { country: 'US' }, customer: null };
  const context = { startsOn: day('2026-01-01'), holidays: [], pauses: [] };
  const plan = (of: PlanTerms) => ({
    terms: of,
    state: 'active' as const,
    chargedMinor: 0n,
    chargedCount: 0,
    plannedMinor: null,
    plannedCount: null,
    nextOn: null,
    refusedCount: 0,
    writtenTo: null,
    endsOn: null,
  });

  test('however often it is looked at and charged, each date comes once, and the sums stay what was agreed', () => {
    const shape = fc.record({
      count: fc.integer({ min: 1, max: 40 }),
      parts: fc.boolean(),
      charged: fc.array(fc.nat(3), { maxLength: 12 }),
    });
    fc.assert(
      fc.property(shape, ({ count, parts, charged }) => {
        const of = terms({ after: count }, parts ? 'instalments' : 'membership');
        const { sums } = planReading(of, setting);
        let known: Parameters<typeof lookAhead>[1][number][] = [];
        const look = () => {
          const ahead = lookAhead(plan(of), known, sums, context);
          known = [...known, ...ahead.fresh.map((one) => ({ ...one, state: 'upcoming' as const }))];
          return ahead;
        };
        const total = look().progress.plannedMinor;
        expect(total).toBe(parts ? sums.eachMinor : sums.eachMinor * BigInt(count));
        for (const times of charged) {
          expect(look().fresh).toEqual([]);
          let left = times;
          known = known.map((one) =>
            one.state === 'upcoming' && left-- > 0 ? { ...one, state: 'charged' as const } : one,
          );
          const { progress, over } = look();
          expect(progress.plannedMinor).toBe(total);
          expect(progress.plannedCount).toBe(count);
          expect(over).toBe(progress.chargedCount === count);
          expect(known.filter(({ state }) => PAID_STATES.some((one) => one === state)).length).toBe(
            progress.chargedCount,
          );
        }
        expect(new Set(known.map(({ part, nominal }) => `${part} ${nominal}`)).size).toBe(known.length);
        if (!parts) expect(known.filter(({ state }) => state === 'upcoming').length).toBeLessThanOrEqual(13);
      }),
      { seed: 11 },
    );
  });

  test('a plan without an end has neither a sum nor a last date, and one that is paused has no next', () => {
    const { sums } = planReading(terms('never', 'membership'), setting);
    const running = lookAhead(plan(terms('never', 'membership')), [], sums, context);
    expect(running.fresh.length).toBe(13);
    expect(running.progress).toMatchObject({ plannedMinor: null, plannedCount: null, nextOn: '2026-01-05' });
    const paused = lookAhead({ ...plan(terms('never', 'membership')), state: 'paused' }, [], sums, context);
    expect(paused).toMatchObject({ fresh: [], over: false, progress: { nextOn: null } });
  });
});
