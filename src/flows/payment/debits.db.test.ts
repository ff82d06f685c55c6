/** Bank debits: under way for banking days, then paid or not, and perhaps taken back weeks later; booked once, whoever tells it how often. */

import { randomUUID } from 'node:crypto';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { addDays } from '@/core/dates/calendar-date';
import { USUAL_WAYS } from '@/core/paper/paper';
import { USUAL_POLICY } from '@/core/plan/dunning';
import { WHOLE_REGISTER } from '@/core/register/ask';
import { cardsOf } from '@/db/cards';
import { accountBalances, ledgerTroubles } from '@/db/ledger';
import { inBusiness } from '@/db/transaction';
import { batchSheet } from '@/flows/day/day-batches';
import { todayView } from '@/flows/day/today';
import { programContext } from '@/flows/door/program';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { viewByLink } from '@/flows/invoice/payer-page';
import { remindDue } from '@/flows/invoice/remind';
import { payoutList } from '@/flows/payout/payout-list';
import { registerOf } from '@/flows/register/register';
import { services } from '@/outside/services';
import { asSuperuser } from '../../../tests/support/database';
import { decideDebit } from '../../../tests/support/debits';
import { underTheKnife } from '../../../tests/support/knife';
import { playMinute } from '../../../tests/support/minute';
import { clockAt, confirmedAccount, playDays } from '../../../tests/support/payouts';
import { watchedPlans } from '../../../tests/support/plan-house';
import { planTerms, runningPlan } from '../../../tests/support/plans';
import { back, backOf } from '../../../tests/support/refunds';
import { seeded } from '../../../tests/support/seeded';
import {
  cardToken,
  foundHouse,
  type House,
  plainPaper,
  sentInvoice,
  sharedWorkshop,
} from '../../../tests/support/workshop';
import { lookForDebits } from './hear-debits';
import { refundPayment } from './refund-payment';
import { takePayment } from './take-payment';

// A Monday: what is asked for then is known on Thursday.
const DAY = '2027-03-01' as CalendarDate;
const THURSDAY = '2027-03-04' as CalendarDate;
const workshop = await sharedWorkshop();
let house: House;
let plans: ReturnType<typeof watchedPlans>;
afterEach(() => {
  vi.restoreAllMocks();
});
beforeEach(async () => {
  house = await foundHouse();
  plans = watchedPlans(workshop, house);
  await at(DAY, '10:00');
});

const at = (day: CalendarDate, hour: string) => clockAt(workshop, house, day, hour);
const of = <T>(work: Parameters<typeof inBusiness<T>>[1]) => inBusiness(programContext(house.business.id), work);
const balance = async (account: Parameters<typeof accountBalances>[1]): Promise<bigint> =>
  (await of((tx) => accountBalances(tx, account))).find(({ currency }) => currency === 'USD')?.minor ?? 0n;
const sound = async () => expect(await of(ledgerTroubles)).toEqual([]);
const look = () => lookForDebits(programContext(house.business.id));
const rowsOf = async (change: Partial<typeof WHOLE_REGISTER> = {}) =>
  (await registerOf(house.reader, { ...WHOLE_REGISTER, ...change }, null)).rows;

type Paid = { id: string; state: string; method: string; settledAt: Date | null };
const payments = (): Promise<Paid[]> =>
  asSuperuser<Paid>(
    workshop.admin,
    `select id, state, method, settled_at as "settledAt" from payments where business_id = $1 order by started_at, id`,
    [house.business.id],
  );

/** An invoice of 110.00 that can be paid by bank debit, and how it is paid from an account. */
async function debitable(ways: Partial<typeof USUAL_WAYS> = {}) {
  const sent = await sentInvoice(
    house,
    plainPaper(house, { ways: { ...USUAL_WAYS, debit: true, ...ways }, reminders: [1] }),
  );
  const pay = async (
    account: string,
    amountMinor = 11000n,
    more: { tipMinor?: bigint } = {},
    attemptKey = randomUUID(),
  ) =>
    takePayment(
      sent.link,
      { attemptKey, cardToken: await cardToken(workshop.standIns, account), amountMinor, ...more },
      '192.0.2.7',
    );
  return { ...sent, pay, sheet: () => invoiceSheet(house.reader, sent.id) };
}

test('a plan charges an account: nothing moves for three banking days, then it is paid, in batch, payout and register', async () => {
  await confirmedAccount(workshop, house);
  const { id } = await runningPlan(house, workshop.standIns, planTerms(house, DAY), ['account-good']);
  await plans.due();
  expect(await plans.told(id, 1)).toEqual(['charging 2027-03-01 2200']);
  await at(addDays(DAY, 2), '12:00');
  await Promise.all([look(), plans.due()]);
  expect(await plans.told(id, 1)).toEqual(['charging 2027-03-01 2200']);
  expect([await balance('processor-clearing'), await balance('receivable')]).toEqual([0n, 2200n]);
  // It is expected, so that it does not stand among what has had no answer.
  expect((await todayView(house.reader)).work.waits).toEqual([]);
  await at(THURSDAY, '10:00');
  await Promise.all([look(), look(), look()]);
  expect(await plans.told(id, 1)).toEqual(['charged 2027-03-01 2200']);
  // 0.5 percent and 0.20.
  expect([await balance('processor-clearing'), await balance('processing-fees')]).toEqual([2200n - 31n, 31n]);
  expect((await rowsOf({ way: 'debit' })).map(({ state, cardScheme }) => [state, cardScheme])).toEqual([
    ['paid', 'Bank account'],
  ]);
  expect(await rowsOf({ way: 'card' })).toEqual([]);
  await sound();
  expect(
    await playDays(
      workshop,
      house,
      [1, 2, 3, 4, 5].map((days) => addDays(THURSDAY, days)),
    ),
  ).toEqual([]);
  const { batch } = await batchSheet(house.reader, THURSDAY);
  expect([batch.sums.map(({ netMinor }) => netMinor), batch.differences]).toEqual([[2169n], []]);
  expect((await payoutList(house.reader)).rows.map(({ amountMinor, state }) => [amountMinor, state])).toEqual([
    [2169n, 'arrived'],
  ]);
  await sound();
});

test('not enough money: told on its day, tried again by the policy, and another card of the plan takes its place at once', async () => {
  await plans.policy({ ...USUAL_POLICY, secondCard: false });
  const alone = await runningPlan(house, workshop.standIns, planTerms(house, DAY), ['account-short']);
  await plans.due();
  await at(THURSDAY, '10:00');
  await look();
  expect(await plans.told(alone.id, 1)).toEqual(['refused 2027-03-01 2200']);
  const [charge] = await plans.charges(alone.id);
  expect(charge).toMatchObject({ lastReason: 'account-short', round: 1 });
  expect((await todayView(house.reader)).work.waits.map(({ first }) => first.kind)).toEqual(['charge']);
  await plans.policy(USUAL_POLICY);
  const two = await runningPlan(house, workshop.standIns, planTerms(house, THURSDAY), [
    'account-closed',
    'corvid-good',
  ]);
  await plans.due();
  await at('2027-03-09' as CalendarDate, '10:00');
  await look();
  await plans.due();
  expect(await plans.told(two.id, 1)).toEqual(['charged 2027-03-04 2200']);
  const cards = await of((tx) => cardsOf(tx, two.customerId));
  expect(cards.map(({ scheme, state, trouble }) => [scheme, state, trouble])).toEqual([
    ['Bank account', 'refusing', 'account-closed'],
    ['Corvid', 'good', null],
  ]);
  await sound();
});

test('taken back after twenty days: owed again with the bank’s fee, a refusal to the plan, told once by whoever hears of it', async () => {
  await plans.policy({ ...USUAL_POLICY, secondCard: false, afterwards: 'carry-on' });
  const terms = planTerms(house, DAY, { kind: 'instalments', price: '90.00', schedule: { ends: { after: 3 } } });
  const { id, customerId, email } = await runningPlan(house, workshop.standIns, terms, [
    'account-objects',
    'corvid-good',
  ]);
  await plans.due();
  await at(THURSDAY, '10:00');
  await look();
  expect(await plans.told(id, 1)).toEqual(['charged 2027-03-01 3300']);
  const before = await balance('processor-clearing');
  await at(addDays(THURSDAY, 21), '10:00');
  await Promise.all([look(), look(), look()]);
  await look();
  expect(await balance('processor-clearing')).toBe(before - 3300n - 300n);
  expect(await plans.told(id, 1)).toEqual(['refused 2027-03-01 3300']);
  const [charge] = await plans.charges(id);
  // The days for trying again count from the day on which it came back; the account is not charged again unasked.
  expect(charge).toMatchObject({ lastReason: 'debit-objected', round: 1, paymentId: null, settledAt: null });
  expect(charge?.actAt && charge.actAt > addMs(addDays(THURSDAY, 23))).toBe(true);
  expect((await of((tx) => cardsOf(tx, customerId))).map(({ state }) => state)).toEqual(['refusing', 'good']);
  const mails = await asSuperuser<{ kind: string }>(
    workshop.admin,
    `select kind from messages where business_id = $1 and to_address = $2 and kind in ('charge-refused', 'debit-returned', 'refund')`,
    [house.business.id, email],
  );
  expect(mails).toEqual([{ kind: 'charge-refused' }]);
  const returned = (await rowsOf({ show: 'refunds' })).map(({ amountMinor, method, why }) => [
    amountMinor,
    method,
    why,
  ]);
  expect(returned).toEqual([[3300n, 'debit', 'MD06: the payer asked their bank for it back']]);
  await sound();
  // With the card it is charged anew, and what is paid of the balance is what was.
  await plans.playUntil('2027-03-26', '2027-06-20');
  expect(await plans.told(id)).toEqual([
    'charged 2027-03-01 3300',
    'charged 2027-04-01 3300',
    'charged 2027-05-01 3300',
  ]);
  const [invoice] = await asSuperuser<{ due: string; paid: string; back: string }>(
    workshop.admin,
    'select due_minor::text as due, paid_minor::text as paid, refunded_minor::text as back from invoices where business_id = $1',
    [house.business.id],
  );
  expect(invoice).toEqual({ due: '0', paid: '13200', back: '3300' });
  await sound();
});

const addMs = (day: CalendarDate): Date => new Date(`${day}T00:00:00Z`);

test('a debit that comes back when its plan has ended: the invoice is owed, and the plan stays ended', async () => {
  const terms = planTerms(house, DAY, { kind: 'instalments', price: '30.00', schedule: { ends: { after: 1 } } });
  const { id } = await runningPlan(house, workshop.standIns, terms, ['account-unsigned']);
  await plans.due();
  await at(THURSDAY, '10:00');
  await look();
  expect((await plans.plan(id)).state).toBe('finished');
  await at(addDays(THURSDAY, 41), '10:00');
  await look();
  await plans.due();
  expect([(await plans.plan(id)).state, await plans.told(id)]).toEqual(['finished', ['refused 2027-03-01 3300']]);
  const [row] = await asSuperuser<{ due: string }>(
    workshop.admin,
    'select due_minor::text as due from invoices where business_id = $1',
    [house.business.id],
  );
  expect(row?.due).toBe('3300');
  await sound();
});

test('an invoice from an account: once however often it is pressed, nobody else pays or is reminded meanwhile; then a receipt', async () => {
  const invoice = await debitable({ tip: ['10'] });
  const key = randomUUID();
  const [first, again, other] = [
    await invoice.pay('account-good', 11000n, { tipMinor: 1100n }, key),
    await invoice.pay('account-good', 11000n, { tipMinor: 1100n }, key),
    await invoice.pay('account-other'),
  ];
  const told = { state: 'collecting', on: THURSDAY };
  expect([first, again, other]).toMatchObject([told, told, told]);
  expect(await payments()).toMatchObject([{ state: 'pending', method: 'debit' }]);
  const view = await viewByLink(invoice.link);
  expect(view?.pending?.expectedAt).toBeTruthy();
  expect(view?.heldMinor).toBe(11000n);
  // A reminder whose day comes now waits until the day after.
  await asSuperuser(workshop.admin, `update reminders set remind_on = $2 where business_id = $1`, [
    house.business.id,
    DAY,
  ]);
  await remindDue(await programContext(house.business.id).later());
  const waiting = await asSuperuser<{ state: string; on: string }>(
    workshop.admin,
    `select distinct state, remind_on::text as on from reminders where business_id = $1`,
    [house.business.id],
  );
  expect(waiting).toEqual([{ state: 'waiting', on: addDays(THURSDAY, 1) }]);
  await at(THURSDAY, '10:00');
  await look();
  expect(await invoice.pay('account-good', 11000n, {}, key)).toMatchObject({ state: 'paid' });
  expect((await invoice.sheet()).invoice).toMatchObject({ dueMinor: 0n, paidMinor: 11000n });
  const kinds = (await invoice.sheet()).timeline.map(({ event }) => event.kind);
  expect(kinds.filter((kind) => kind === 'collecting' || kind === 'paid')).toHaveLength(2);
  await sound();
});

test('taken back, an invoice is owed with what went back by hand; its payer gets a letter, Today says it, and it is paid by card', async () => {
  const invoice = await debitable({ tip: ['10'] });
  await invoice.pay('account-good', 11000n, { tipMinor: 1100n });
  await at(THURSDAY, '10:00');
  await look();
  const [payment] = await payments();
  const id = payment?.id ?? '';
  await expect(refundPayment(house.owner, id, back({ by: 'void' }, { method: 'debit' }))).rejects.toMatchObject({
    code: 'not-by-card',
  });
  expect(await refundPayment(house.owner, id, backOf(1000n, { method: 'debit' }))).toBe('done');
  expect(await refundPayment(house.owner, id, backOf(500n, { method: 'cash' }))).toBe('done');
  await sound();
  // The bank takes all that it ever paid and did not get back: 121.00 less 10.00.
  expect(await decideDebit(workshop, id, 'MD06')).toBe(true);
  await look();
  await sound();
  const { invoice: owed } = await invoice.sheet();
  // Credited were 15.00; the cash that went out as well is owed too.
  expect(owed).toMatchObject({ dueMinor: 10000n, creditedMinor: 1500n });
  expect(await balance('tips')).toBe(0n);
  const work = (await todayView(house.reader)).work.groups.map(({ group, rows }) => [group, rows[0]?.first.kind]);
  expect(work).toEqual([['remind', 'came-back']]);
  expect((await viewByLink(invoice.link))?.refused?.reason).toBe('debit-objected');
  const paid = await invoice.pay('corvid-good', 10000n);
  expect(paid).toMatchObject({ state: 'paid' });
  await sound();
});

test('a card only, an account only: the other is not taken, and nothing is charged', async () => {
  const cardsOnly = await debitable({ debit: false });
  expect(await cardsOnly.pay('account-good')).toMatchObject({ state: 'refused', reason: 'never-charged' });
  const accountsOnly = await debitable({ card: false });
  expect(await accountsOnly.pay('corvid-good')).toMatchObject({ state: 'refused', reason: 'never-charged' });
  expect(await accountsOnly.pay('account-good')).toMatchObject({ state: 'collecting' });
});

test('in parts, a debit and cards pay side by side, each within what the others leave', async () => {
  const invoice = await debitable({ parts: true });
  expect(await invoice.pay('account-good', 6000n)).toMatchObject({ state: 'collecting' });
  await expect(invoice.pay('corvid-good', 6000n)).rejects.toMatchObject({ code: 'amount-changed' });
  expect(await invoice.pay('corvid-good', 5000n)).toMatchObject({ state: 'paid' });
  await expect(invoice.pay('corvid-good', 1000n)).rejects.toMatchObject({ code: 'payment-under-way' });
  await at(THURSDAY, '10:00');
  await look();
  expect((await invoice.sheet()).invoice.dueMinor).toBe(0n);
  await sound();
});

test('what is told wrongly changes nothing: another currency, more than was paid, a card’s sale, an id that is none', async () => {
  const invoice = await debitable();
  await invoice.pay('account-good');
  await at(THURSDAY, '10:00');
  await look();
  const card = await debitable();
  await card.pay('corvid-good');
  const [debit, sale] = await payments();
  const told = {
    id: randomUUID(),
    paymentId: debit?.id ?? '',
    currency: 'USD',
    amountMinor: 11000n,
    feeMinor: 300n,
    code: 'MD06',
  };
  vi.spyOn(services().cards, 'returns').mockResolvedValue([
    { ...told, currency: 'EUR' },
    { ...told, amountMinor: 11001n },
    { ...told, paymentId: sale?.id ?? '' },
    { ...told, paymentId: randomUUID() },
    { ...told, paymentId: 'nobody' },
  ]);
  await look();
  expect(await rowsOf({ show: 'refunds' })).toEqual([]);
  await sound();
});

test('killed at any step of collecting and of hearing that it came back, it is booked once', async () => {
  const random = seeded(23);
  const invoices = [];
  for (let count = 0; count < 6; count++) {
    const invoice = await debitable();
    await invoice.pay('account-good');
    invoices.push(invoice);
  }
  const knifed = async (times: number): Promise<void> => {
    for (let kill = 0; kill < times; kill++)
      await underTheKnife(look, {
        steps: 1 + Math.floor(random() * 60),
        heard: random() < 0.5,
        outside: [{ of: services().cards, calls: ['ask', 'returns'] }],
      });
  };
  await at(THURSDAY, '10:00');
  await knifed(12);
  await look();
  expect((await payments()).map(({ state }) => state)).toEqual(Array(6).fill('paid'));
  await sound();
  for (const { id } of await payments()) expect(await decideDebit(workshop, id, 'MD01')).toBe(true);
  await knifed(16);
  await look();
  expect(await rowsOf({ show: 'refunds' })).toHaveLength(6);
  for (const invoice of invoices) expect((await invoice.sheet()).invoice.dueMinor).toBe(11000n);
  await sound();
  expect(
    await playDays(
      workshop,
      house,
      [1, 2, 3].map((days) => addDays(THURSDAY, days)),
    ),
  ).toEqual([]);
  expect((await batchSheet(house.reader, THURSDAY)).batch.differences).toEqual([]);
  expect(await playMinute()).toEqual([]);
});
