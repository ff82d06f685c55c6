import { randomUUID } from 'node:crypto';
import { describe, expect, test } from 'vitest';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { instantInZone } from '@/core/dates/zone';
import type { ChargingPolicy } from '@/core/plan/dunning';
import { USUAL_POLICY } from '@/core/plan/dunning';
import { businessById, updateBusiness } from '@/db/businesses';
import { cardsOf } from '@/db/cards';
import { chargesOfPlan } from '@/db/charges';
import { ledgerTroubles } from '@/db/ledger';
import { planById } from '@/db/plans';
import { inBusiness, readBusiness } from '@/db/transaction';
import { chargeDue } from '@/flows/charging/charge-due';
import type { Context } from '@/flows/door/operation';
import { programContext } from '@/flows/door/program';
import { deskQuote, payAtDesk } from '@/flows/payment/desk-payment';
import { takeAsPaid } from '@/flows/payment/take-as-paid';
import { takePayment } from '@/flows/payment/take-payment';
import { asSuperuser } from '../../../tests/support/database';
import { planTerms, runningPlan, setClock } from '../../../tests/support/plans';
import { cardToken, foundHouse, sharedWorkshop } from '../../../tests/support/workshop';
import { askForCards } from './ask-for-cards';
import { removeAtDesk } from './cards-on-file';
import { chargeAgain, moveCharge, skipCharge, waiveCharge } from './change-charge';
import {
  cancelPlan,
  changeAmount,
  duplicatePlan,
  finishEarly,
  pausePlan,
  resumePlan,
  withdrawAtDesk,
} from './change-plan';
import { lapse } from './lapse';
import { ownPageToken } from './links';
import { checkPlans, makePlans } from './many-plans';
import { doOnOwnPage, ownPage } from './own-page';
import { acceptPlan, keepPlan, sendPlan, startAtDesk } from './plans';
import { remindWaiting } from './remind-waiting';
import { tellBefore } from './tell-before';

const workshop = await sharedWorkshop();
const house = await foundHouse();

const zone = 'America/Los_Angeles';
const at = (on: string, hour = '09:05') => instantInZone(on as CalendarDate, hour, zone);
const clock = (on: string, hour?: string) => setClock(workshop.standIns, at(on, hour));
const due = () => chargeDue(house.business.id);
const charges = (planId: string) => readBusiness(programContext(house.business.id), (db) => chargesOfPlan(db, planId));
const plan = async (id: string) => {
  const one = await readBusiness(programContext(house.business.id), (db) => planById(db, id));
  if (!one) throw new Error('The plan is gone');
  return one;
};
/** State, day and sum of each charge, such as `charged 2026-01-31 2200`. */
const told = async (id: string, most = 5) =>
  (await charges(id)).slice(0, most).map((one) => `${one.state} ${one.chargedOn} ${one.amountMinor}`);
const policy = (change: Partial<ChargingPolicy>) =>
  inBusiness(programContext(house.business.id), async (tx) => {
    const business = await businessById(tx);
    await updateBusiness(tx, { ...business, charging: { ...USUAL_POLICY, ...change } });
  });
const playUntil = async (from: string, to: string) => {
  for (let day = Date.parse(`${from}T12:00:00Z`); day <= Date.parse(`${to}T12:00:00Z`); day += 86_400_000) {
    await clock(new Date(day).toISOString().slice(0, 10));
    await due();
  }
};
const kinds = (planId: string) =>
  asSuperuser<{ kind: string }>(
    workshop.admin,
    'select kind from messages where plan_id = $1 order by created_at, kind',
    [planId],
  ).then((rows) => rows.map(({ kind }) => kind));

/** What the clock brings to plans beside their charges. */
async function whatPlansNeed(ctx: Context): Promise<void> {
  for (const concern of [lapse, tellBefore, remindWaiting, askForCards]) await concern(ctx);
}

describe('what is due is charged once', () => {
  test('a membership: every month, with receipt, payment, invoice and ledger; two who charge at once charge once', async () => {
    await clock('2026-01-31');
    const { id } = await runningPlan(house, workshop.standIns, planTerms(house, '2026-01-31'));
    await Promise.all([due(), due(), due()]);
    expect(await told(id, 3)).toEqual([
      'charged 2026-01-31 2200',
      'upcoming 2026-02-28 2200',
      'upcoming 2026-03-31 2200',
    ]);
    await clock('2026-02-28', '08:59');
    await due();
    expect(await told(id, 2)).toEqual(['charged 2026-01-31 2200', 'upcoming 2026-02-28 2200']);
    await clock('2026-02-28');
    await due();
    expect(await plan(id)).toMatchObject({
      chargedCount: 2,
      chargedMinor: 4400n,
      nextOn: '2026-03-31',
      plannedCount: null,
    });
    const rows = await asSuperuser<{ channel: string; due: string; receipt: string | null }>(
      workshop.admin,
      `select payments.channel, invoices.due_minor as due, receipts.number as receipt from payments
         join invoices on invoices.id = payments.invoice_id left join receipts on receipts.payment_id = payments.id
         join charges on charges.payment_id = payments.id where charges.plan_id = $1`,
      [id],
    );
    expect(rows).toMatchObject([
      { channel: 'plan', due: '0' },
      { channel: 'plan', due: '0' },
    ]);
    expect(rows.every(({ receipt }) => receipt !== null)).toBe(true);
  });

  test('parts of a balance: one invoice over the whole, a deposit at once, and the plan is finished with the last', async () => {
    await clock('2026-03-02');
    const terms = planTerms(house, '2026-03-10', {
      kind: 'instalments',
      price: '100.00',
      deposit: '20%',
      schedule: { ends: { after: 3 } },
    });
    const { id } = await runningPlan(house, workshop.standIns, terms);
    await due();
    // 110.00 less 22.00 over three: 29.34, 29.33, 29.33.
    expect(await told(id)).toEqual([
      'charged 2026-03-02 2200',
      'upcoming 2026-03-10 2934',
      'upcoming 2026-04-10 2933',
      'upcoming 2026-05-10 2933',
    ]);
    const { invoiceId } = await plan(id);
    await clock('2026-05-10');
    await due();
    expect(await plan(id)).toMatchObject({ state: 'finished', chargedMinor: 11_000n, plannedMinor: 11_000n });
    expect(await asSuperuser(workshop.admin, 'select due_minor from invoices where id = $1', [invoiceId])).toEqual([
      { due_minor: '0' },
    ]);
  });

  test('the first now, a set-up fee, the first period free, an end; a weekend moves the day', async () => {
    await clock('2026-04-01');
    const terms = planTerms(house, '2026-04-04', {
      firstNow: true,
      freeFirst: true,
      setUp: '5.00',
      schedule: { ends: { after: 3 }, shift: 'next' },
    });
    const { id } = await runningPlan(house, workshop.standIns, terms);
    await due();
    // 4 April is a Saturday, but the first is charged when the plan begins; 4 July is one too.
    expect(await told(id)).toEqual(['charged 2026-04-01 550', 'upcoming 2026-05-04 2200', 'upcoming 2026-06-04 2200']);
    expect(await plan(id)).toMatchObject({ plannedCount: 3, plannedMinor: 4950n });
  });

  test('the first now does not wait for the hour of charging, the first on its day does', async () => {
    await clock('2026-04-01', '01:00');
    const now = await runningPlan(house, workshop.standIns, planTerms(house, '2026-04-01', { firstNow: true }));
    const onDay = await runningPlan(house, workshop.standIns, planTerms(house, '2026-04-01'));
    await due();
    expect((await told(now.id))[0]).toBe('charged 2026-04-01 2200');
    expect((await told(onDay.id))[0]).toBe('upcoming 2026-04-01 2200');
    await clock('2026-04-01');
    await due();
    expect((await told(onDay.id))[0]).toBe('charged 2026-04-01 2200');
    expect((await told(now.id))[1]).toBe('upcoming 2026-05-01 2200');
  });

  test('without a card every period is an invoice by mail, and its payment is followed', async () => {
    await clock('2026-04-01');
    const { id } = await runningPlan(house, workshop.standIns, planTerms(house, '2026-04-01', { pay: 'invoice' }), []);
    await due();
    const [first] = await charges(id);
    expect(first).toMatchObject({ state: 'billed', amountMinor: 2200n });
    const [row] = await asSuperuser<{ link_token: string }>(
      workshop.admin,
      'select link_token from invoices where id = $1',
      [first?.invoiceId],
    );
    const attempt = {
      attemptKey: randomUUID(),
      amountMinor: 2200n,
      cardToken: await cardToken(workshop.standIns, 'lumen-good'),
    };
    await takePayment(row?.link_token ?? '', attempt, '203.0.113.9');
    expect((await charges(id))[0]).toMatchObject({ state: 'charged', note: null });
  });
});

describe('what is refused', () => {
  test('the second card is tried at once; a blocked one is never tried again', async () => {
    await policy({});
    await clock('2026-05-01');
    const { id, customerId } = await runningPlan(house, workshop.standIns, planTerms(house, '2026-05-01'), [
      'corvid-blocked',
      'lumen-good',
    ]);
    await due();
    expect((await charges(id))[0]).toMatchObject({ state: 'charged', attempts: 2, lastReason: 'card-blocked' });
    const cards = await readBusiness(programContext(house.business.id), (db) => cardsOf(db, customerId));
    expect(cards.map(({ state }) => state)).toEqual(['refusing', 'good']);
    await clock('2026-06-01');
    await due();
    expect((await charges(id))[1]).toMatchObject({ state: 'charged', attempts: 1 });
  });

  test('it is tried again on the policy’s days, then the plan pauses; the customer is told first and last', async () => {
    await policy({ retryDays: [3, 5] });
    await clock('2026-05-04');
    const { id } = await runningPlan(house, workshop.standIns, planTerms(house, '2026-05-04'), ['corvid-poor']);
    await playUntil('2026-05-04', '2026-05-12');
    expect((await charges(id))[0]).toMatchObject({ state: 'refused', attempts: 3, round: 2, actAt: null });
    expect(await plan(id)).toMatchObject({ state: 'paused', refusedCount: 1, nextOn: null });
    expect((await kinds(id)).filter((kind) => kind === 'charge-refused')).toHaveLength(2);
    const days = await asSuperuser<{ day: string }>(
      workshop.admin,
      `select to_char(started_at at time zone $2, 'MM-DD') as day from payments join charges on charges.id = payments.charge_id
        where charges.plan_id = $1 order by started_at`,
      [id, zone],
    );
    expect(days.map(({ day }) => day)).toEqual(['05-04', '05-07', '05-09']);
  });

  test('money that the customer pays by the link recovers it; a card that works the second time too', async () => {
    await policy({});
    await clock('2026-06-02');
    const byLink = await runningPlan(house, workshop.standIns, planTerms(house, '2026-06-02'), ['corvid-silent']);
    const byTime = await runningPlan(house, workshop.standIns, planTerms(house, '2026-06-02'), ['corvid-second']);
    await due();
    const [refused] = await charges(byLink.id);
    const [row] = await asSuperuser<{ link_token: string }>(
      workshop.admin,
      'select link_token from invoices where id = $1',
      [refused?.invoiceId],
    );
    const attempt = {
      attemptKey: randomUUID(),
      amountMinor: 2200n,
      cardToken: await cardToken(workshop.standIns, 'lumen-good'),
    };
    await takePayment(row?.link_token ?? '', attempt, '203.0.113.9');
    expect((await charges(byLink.id))[0]).toMatchObject({ state: 'otherwise', actAt: null });
    expect(await plan(byLink.id)).toMatchObject({ refusedCount: 0, chargedCount: 1 });
    await clock('2026-06-05');
    await due();
    expect((await charges(byTime.id))[0]).toMatchObject({ state: 'charged', attempts: 2 });
  });

  test('afterwards the plan is cancelled, or goes on', async () => {
    await policy({ retryDays: [], afterwards: 'cancel' });
    await clock('2026-07-01');
    const ends = await runningPlan(house, workshop.standIns, planTerms(house, '2026-07-01'), ['corvid-poor']);
    await due();
    expect(await plan(ends.id)).toMatchObject({ state: 'cancelled' });
    expect(await told(ends.id)).toEqual(['refused 2026-07-01 2200']);
    await policy({ retryDays: [], afterwards: 'carry-on' });
    const goes = await runningPlan(house, workshop.standIns, planTerms(house, '2026-07-01'), ['corvid-poor']);
    await due();
    expect(await plan(goes.id)).toMatchObject({ state: 'active', nextOn: '2026-08-01', refusedCount: 1 });
    await policy({});
  });
});

describe('by hand', () => {
  test('made again it begins anew: a copy charges nothing of the past', async () => {
    await clock('2026-03-15');
    const { id } = await keepPlan(house.owner, null, {
      terms: planTerms(house, '2026-01-31'),
      memo: '',
      reference: '',
    });
    const copy = await plan(await duplicatePlan(house.owner, id));
    expect(copy).toMatchObject({ state: 'draft', terms: { schedule: { start: '2026-03-31' } } });
    await expect(duplicatePlan(house.reader, id)).rejects.toThrow('not change');
  });

  test('charged again with another card; taken as paid; waived; moved; skipped; at another price', async () => {
    await policy({ secondCard: false });
    await clock('2026-08-03');
    const { id, customerId } = await runningPlan(house, workshop.standIns, planTerms(house, '2026-08-03'), [
      'corvid-poor',
      'lumen-good',
    ]);
    await due();
    const [first] = await charges(id);
    const cards = await readBusiness(programContext(house.business.id), (db) => cardsOf(db, customerId));
    await chargeAgain(house.owner, first?.id ?? '', cards[1]?.id ?? '');
    await due();
    expect((await charges(id))[0]).toMatchObject({ state: 'charged' });
    await removeAtDesk(house.owner, cards[0]?.id ?? '');
    const [, second, third, fourth] = await charges(id);
    await takeAsPaid(house.owner, second?.id ?? '', 'cash', 'at the counter');
    await waiveCharge(house.owner, third?.id ?? '');
    await moveCharge(house.owner, fourth?.id ?? '', '2026-11-09');
    expect(await told(id, 4)).toEqual([
      'charged 2026-08-03 2200',
      'otherwise 2026-09-03 2200',
      'waived 2026-10-03 2200',
      'upcoming 2026-11-09 2200',
    ]);
    await skipCharge(house.owner, (await charges(id))[4]?.id ?? '');
    for (const wrong of ['', 'much', '0', '-5'])
      await expect(changeAmount(house.owner, id, wrong), wrong).rejects.toMatchObject({ code: 'plan-not-ready' });
    await changeAmount(house.owner, id, '30.00');
    const rest = (await charges(id)).filter(({ state }) => state === 'upcoming');
    expect(rest.some(({ nominal }) => nominal === '2026-12-03')).toBe(false);
    expect(new Set(rest.map(({ amountMinor }) => amountMinor))).toEqual(new Set([3300n]));
    await policy({});
  });

  test('paused and resumed: what fell into the pause is left out; parts of a balance come later, all of them', async () => {
    await clock('2026-08-10');
    const member = await runningPlan(house, workshop.standIns, planTerms(house, '2026-08-10'));
    const terms = planTerms(house, '2026-08-10', {
      kind: 'instalments',
      price: '90.00',
      schedule: { ends: { after: 3 } },
    });
    const parts = await runningPlan(house, workshop.standIns, terms);
    await due();
    for (const one of [member, parts]) await pausePlan(house.owner, one.id);
    await clock('2026-10-20');
    await due();
    for (const one of [member, parts]) await resumePlan(house.owner, one.id);
    expect(await told(member.id, 2)).toEqual(['charged 2026-08-10 2200', 'upcoming 2026-11-10 2200']);
    expect(await told(parts.id)).toEqual([
      'charged 2026-08-10 3300',
      'upcoming 2026-11-10 3300',
      'upcoming 2026-12-10 3300',
    ]);
  });

  test('cancelled at once or after the period; the rest of a balance charged early; a withdrawn authorisation ends it', async () => {
    await clock('2026-10-21');
    const start = () => runningPlan(house, workshop.standIns, planTerms(house, '2026-10-21'));
    const [now, later, withdrawn] = [await start(), await start(), await start()];
    const terms = planTerms(house, '2026-10-21', {
      kind: 'instalments',
      price: '90.00',
      schedule: { ends: { after: 3 } },
    });
    const parts = await runningPlan(house, workshop.standIns, terms);
    await due();
    await cancelPlan(house.owner, now.id, false);
    await cancelPlan(house.owner, later.id, true);
    await withdrawAtDesk(house.owner, withdrawn.id);
    await finishEarly(house.owner, parts.id);
    await due();
    expect((await plan(now.id)).state).toBe('cancelled');
    expect((await plan(later.id)).state).toBe('finished');
    expect((await plan(withdrawn.id)).state).toBe('cancelled');
    expect(await plan(parts.id)).toMatchObject({ state: 'finished', chargedMinor: 9900n });
    await clock('2026-12-01');
    await due();
    for (const one of [now, later, withdrawn]) expect(await told(one.id)).toEqual(['charged 2026-10-21 2200']);
    expect(await kinds(withdrawn.id)).toContain('plan-ended');
  });
});

describe('by link', () => {
  test('it waits for the card, reminds, is accepted once, and lapses where nobody comes', async () => {
    await clock('2026-11-02', '12:00');
    const terms = planTerms(house, '2026-11-15', { noticeDays: 3 });
    const first = await keepPlan(house.owner, null, { terms, memo: '', reference: 'A-1' });
    const second = await keepPlan(house.owner, null, { terms, memo: '', reference: '' });
    for (const { id } of [first, second]) await sendPlan(house.owner, id, 'mail');
    await clock('2026-11-08', '12:00');
    await whatPlansNeed(programContext(house.business.id, at('2026-11-08', '12:00')));
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
      await whatPlansNeed(programContext(house.business.id, at(day, '12:00')));
    expect((await kinds(first.id)).filter((kind) => kind === 'charge-notice')).toHaveLength(1);
    const asked = await asSuperuser(
      workshop.admin,
      `select id from messages where kind = 'card-asked' and customer_id = $1`,
      [house.customerId],
    );
    expect(asked).toHaveLength(1);
    await clock('2026-12-20', '12:00');
    await whatPlansNeed(programContext(house.business.id, at('2026-12-20', '12:00')));
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
  const now = at('2027-07-01', '12:00');
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

test('many from a table: every row is looked at, the right ones are made and sent once, however often it is pressed', async () => {
  await clock('2027-02-01', '12:00');
  const text = [
    '\ufeffE-Mail,Name,Plan,Price,Start,Payments,Deposit',
    'new@table.example,Nell Table,Care club,9.50,2027-02-28,,',
    'perpetua@vane.example,,Viola in parts,900,2027-03-01,9,20%',
    'wrong,Somebody,Care club,9.50,2027-02-28,,',
    'other@table.example,,Care club,9.50,2027-02-28,,',
    'other@table.example,Ola,Care club,free,2027-02-28,,',
  ].join('\r\n');
  const checked = await checkPlans(house.owner, text);
  expect(checked.map(({ known, trouble }) => [known, trouble === ''])).toEqual([
    [false, true],
    [true, true],
    [false, false],
    [false, false],
    [false, false],
  ]);
  const key = randomUUID();
  await makePlans(house.owner, text, key);
  await makePlans(house.owner, text, key);
  const made = await asSuperuser(
    workshop.admin,
    `select plans.kind, plans.state, customers.name, (select count(*)::int from messages where plan_id = plans.id) as mails
     from plans join customers on customers.id = plans.customer_id where plans.name in ('Care club', 'Viola in parts')
       and plans.sent_at > '2027-01-01' order by plans.kind`,
  );
  expect(made).toEqual([
    { kind: 'instalments', state: 'waiting', name: 'Perpetua Vane', mails: 1 },
    { kind: 'membership', state: 'waiting', name: 'Nell Table', mails: 1 },
  ]);
  await expect(checkPlans(house.owner, '')).rejects.toMatchObject({ code: 'table-not-read' });
});

test('a single payment at the desk: with a card on file or a new one, one however often it is pressed, with invoice and receipt', async () => {
  const quoted = (price: string) => deskQuote(house.owner, { customerId: house.customerId, price });
  expect(await quoted('40.00')).toEqual({ currency: 'USD', totalMinor: 4400, taxMinor: 400 });
  expect(await quoted('forty')).toBeNull();
  expect(await quoted('')).toBeNull();
  const { customerId } = await runningPlan(house, workshop.standIns, planTerms(house, '2027-06-01'), ['corvid-good']);
  const [card] = await readBusiness(programContext(house.business.id), (db) => cardsOf(db, customerId));
  const asked = { customerId, what: 'A set of strings', price: '30', attemptKey: randomUUID(), cardId: card?.id };
  const answers = await Promise.all([1, 2, 3].map(() => payAtDesk(house.owner, asked)));
  expect(new Set(answers.map(({ invoiceId }) => invoiceId)).size).toBe(1);
  const rows = await asSuperuser(
    workshop.admin,
    `select payments.state, payments.channel, invoices.due_minor::int as due from payments join invoices on invoices.id = invoice_id
     where payments.attempt_key = $1`,
    [asked.attemptKey],
  );
  expect(rows).toEqual([{ state: 'paid', channel: 'desk', due: 0 }]);
  const poor = {
    ...asked,
    attemptKey: randomUUID(),
    cardId: undefined,
    cardToken: await cardToken(workshop.standIns, 'corvid-poor'),
  };
  expect(await payAtDesk(house.owner, poor)).toMatchObject({ state: 'refused' });
  await expect(
    payAtDesk(house.owner, { ...poor, attemptKey: randomUUID(), cardToken: undefined }),
  ).rejects.toMatchObject({ code: 'no-card' });
});

test('the books balance, and no reader or other business reaches a plan', async () => {
  expect(await readBusiness(programContext(house.business.id), (db) => ledgerTroubles(db))).toEqual([]);
  const other = await foundHouse('Elsewhere');
  const [row] = await asSuperuser<{ id: string }>(workshop.admin, 'select id from plans limit 1');
  await expect(pausePlan(other.owner, row?.id ?? '')).rejects.toThrow('not here');
  await expect(pausePlan(house.reader, row?.id ?? '')).rejects.toThrow('not change');
});
