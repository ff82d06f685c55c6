/** A balance whose parts are asked for by invoice: asked on their days, paid by link or otherwise, late ones in Today. */
import { randomUUID } from 'node:crypto';
import { beforeEach, expect, test } from 'vitest';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { instantInZone } from '@/core/dates/zone';
import { businessById, updateBusiness } from '@/db/businesses';
import { chargesOfPlan } from '@/db/charges';
import { invoiceById } from '@/db/invoices';
import { ledgerTroubles } from '@/db/ledger';
import { planById } from '@/db/plans';
import { inBusiness, readBusiness } from '@/db/transaction';
import { chargeDue } from '@/flows/charging/charge-due';
import { todayView } from '@/flows/day/today';
import { programContext } from '@/flows/door/program';
import { partAskedNow, payableNow, viewByLink } from '@/flows/invoice/payer-page';
import { recordReceived } from '@/flows/payment/receive-payment';
import { takeBackReceived } from '@/flows/payment/take-back-received';
import { takePayment } from '@/flows/payment/take-payment';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { asSuperuser } from '../../../tests/support/database';
import { planTerms, runningPlan, setClock } from '../../../tests/support/plans';
import { cardToken, foundHouse, type House, mailOf, sharedWorkshop } from '../../../tests/support/workshop';
import { cancelPlan } from './change-plan';
import { ownPageToken } from './links';
import { ownPage } from './own-page';
import { remindOfParts } from './remind-of-parts';

const workshop = await sharedWorkshop();
let house: House;
beforeEach(async () => {
  house = await foundHouse();
});

/** The clock at a day's charge hour, and what is due then dealt with. */
async function on(day: string): Promise<Date> {
  const now = instantInZone(day as CalendarDate, '09:05', house.business.zone);
  await setClock(workshop.standIns, now);
  await chargeDue(house.business.id);
  return now;
}

/** 1,100.00 with tax: 200.00 at once, and three parts of 300.00 from 5 May on, each to be paid within ten days. */
async function begun() {
  await on('2027-05-03');
  const terms = planTerms(house, '2027-05-05', {
    kind: 'instalments',
    name: 'A chest',
    price: '1000',
    deposit: '200',
    pay: 'invoice',
    schedule: { ends: { after: 3 } },
  });
  const paper = { ...terms.paper, due: { kind: 'days' as const, days: 10 } };
  const { id, customerId, email } = await runningPlan(house, workshop.standIns, { ...terms, paper });
  await chargeDue(house.business.id);
  const read = () =>
    readBusiness(programContext(house.business.id), async (db) => {
      const plan = await planById(db, id);
      const invoice = await invoiceById(db, plan?.invoiceId ?? '');
      if (!plan || !invoice) throw new Error('The plan is gone');
      const charges = await chargesOfPlan(db, id);
      return { plan, invoice, charges: charges.map((one) => `${one.state} ${one.amountMinor}`) };
    });
  const { invoice } = await read();
  const asked = async () => {
    const view = await viewByLink(invoice.linkToken);
    return view && partAskedNow(view, payableNow(view));
  };
  const pay = async (amountMinor: bigint) =>
    takePayment(
      invoice.linkToken,
      { attemptKey: randomUUID(), cardToken: await cardToken(workshop.standIns, 'corvid-good'), amountMinor },
      randomUUID(),
    );
  return { id, customerId, email, invoice, read, asked, pay };
}

test('each part is asked for on its day, by mail with its sum and last day, and its payment is followed', async () => {
  const { email, read, asked, pay, invoice } = await begun();
  expect((await read()).charges).toEqual(['billed 20000', 'upcoming 30000', 'upcoming 30000', 'upcoming 30000']);
  expect(await asked()).toBe(20_000n);
  await pay(20_000n);
  expect((await read()).charges[0]).toBe('charged 20000');
  expect(await asked()).toBeNull();
  await on('2027-05-05');
  // Less than the part leaves it open for the rest; more of it counts for the next.
  await pay(10_000n);
  expect((await read()).charges.slice(1, 3)).toEqual(['billed 30000', 'upcoming 30000']);
  expect(await asked()).toBe(20_000n);
  await pay(50_000n);
  expect((await read()).charges.slice(1)).toEqual(['charged 30000', 'otherwise 30000', 'upcoming 30000']);
  await on('2027-07-05');
  // The rest is the last part: nothing less is asked for.
  expect(await asked()).toBeNull();
  const { dueMinor, id } = (await read()).invoice;
  expect(dueMinor).toBe(30_000n);
  await recordReceived(house.owner, id, {
    amountMinor: 30_000n,
    method: 'transfer',
    reference: '',
    receivedOn: '2027-07-05' as CalendarDate,
    requestKey: randomUUID(),
  });
  expect(await read()).toMatchObject({
    plan: { state: 'finished', chargedMinor: 110_000n },
    invoice: { dueMinor: 0n },
  });
  expect(await readBusiness(programContext(house.business.id), (db) => ledgerTroubles(db))).toEqual([]);

  const queued = await asSuperuser<{ id: string }>(
    workshop.admin,
    `select id from messages where kind = 'part-due' and business_id = $1 order by created_at`,
    [house.business.id],
  );
  for (const message of queued) await handOverMessage(house.business.id, message.id);
  const mails = (await mailOf(workshop.standIns, email)).filter(({ subject }) => subject.includes('is due by'));
  expect(mails.map(({ subject }) => subject).sort()).toEqual([
    '$200.00 is due by May 13, 2027',
    '$300.00 is due by July 15, 2027',
    '$300.00 is due by May 15, 2027',
  ]);
  expect(mails.every(({ text }) => text.includes(`/i/${invoice.linkToken}`))).toBe(true);
});

test('a part whose payment is taken back is asked for again, and one paid ahead waits for its day again', async () => {
  const { id: planId, read, asked, invoice } = await begun();
  const received = async (amountMinor: bigint) =>
    recordReceived(house.owner, invoice.id, {
      amountMinor,
      method: 'transfer',
      reference: '',
      receivedOn: '2027-05-03' as CalendarDate,
      requestKey: randomUUID(),
    });
  const paymentOf = async (amountMinor: bigint) => {
    const [payment] = await asSuperuser<{ id: string }>(
      workshop.admin,
      `select id from payments where invoice_id = $1 and amount_minor = $2`,
      [invoice.id, amountMinor],
    );
    return payment?.id ?? '';
  };
  const back = async (paymentId: string) => takeBackReceived(house.owner, paymentId, { reason: 'Twice', tell: true });

  await received(20_000n);
  await received(60_000n);
  expect((await read()).charges).toEqual(['charged 20000', 'otherwise 30000', 'otherwise 30000', 'upcoming 30000']);
  const ahead = await paymentOf(60_000n);
  // The same press twice takes it back once.
  await Promise.all([back(ahead), back(ahead)]);
  expect((await read()).charges).toEqual(['charged 20000', 'upcoming 30000', 'upcoming 30000', 'upcoming 30000']);
  expect(await asked()).toBeNull();
  await back(await paymentOf(20_000n));
  expect((await read()).charges[0]).toBe('billed 20000');
  expect(await asked()).toBe(20_000n);
  // What is taken back is asked for as before, and all of it can be paid still.
  await received(110_000n);
  expect(await read()).toMatchObject({ plan: { id: planId, chargedMinor: 110_000n }, invoice: { dueMinor: 0n } });
  expect(await readBusiness(programContext(house.business.id), (db) => ledgerTroubles(db))).toEqual([]);
});

test('a part is reminded of as invoices are, each time once, until it is paid', async () => {
  await inBusiness(programContext(house.business.id), async (tx) => {
    const business = await businessById(tx);
    await updateBusiness(tx, { ...business, reminders: [-12, -2, 3, 10] });
  });
  const { email, pay } = await begun();
  const play = async (from: number, to: number) => {
    for (let day = from; day <= to; day++) {
      const now = instantInZone(
        `2027-05-${String(day).padStart(2, '0')}` as CalendarDate,
        '14:00',
        house.business.zone,
      );
      await setClock(workshop.standIns, now);
      // The worker looks every minute, two of them at times.
      await Promise.all([
        remindOfParts(programContext(house.business.id, now)),
        remindOfParts(programContext(house.business.id, now)),
      ]);
      await remindOfParts(programContext(house.business.id, now));
    }
  };
  // The last day to pay is the 13th: twelve days before it was not yet asked for.
  await play(3, 17);
  await pay(20_000n);
  await play(18, 26);
  const sent = await asSuperuser<{ id: string; days: string | null; on: string }>(
    workshop.admin,
    `select id, details->>'offset' as days, (created_at at time zone 'America/Los_Angeles')::date::text as on from messages
       where kind = 'part-due' and business_id = $1 order by created_at`,
    [house.business.id],
  );
  expect(sent.map(({ days, on }) => `${on} ${days ?? 'asked'}`)).toEqual([
    '2027-05-03 asked',
    '2027-05-11 -2',
    '2027-05-16 3',
  ]);
  for (const { id } of sent) await handOverMessage(house.business.id, id);
  const subjects = (await mailOf(workshop.standIns, email)).map(({ subject }) => subject);
  expect(subjects.filter((subject) => subject === 'Still open: A chest, Sallow Joinery')).toHaveLength(2);
});

test('a part that is not paid in time stands in Today and on the customer’s own page, and no card is ever asked', async () => {
  const { id, customerId, read } = await begun();
  const late = async () => (await todayView(house.owner)).queue.filter(({ kind }) => kind === 'parts');
  await on('2027-05-13');
  expect(await late()).toEqual([]);
  const now = await on('2027-05-14');
  expect(await late()).toMatchObject([{ payBy: '2027-05-13', minor: 20_000n }]);
  const page = await ownPage(ownPageToken(house.business.id, customerId, now));
  expect(page?.open).toMatchObject([
    { payBy: '2027-05-13', minor: 20_000 },
    { payBy: '2027-05-15', minor: 30_000 },
  ]);
  expect((await read()).charges.slice(0, 2)).toEqual(['billed 20000', 'billed 30000']);
  // Both together, as one thing that needs a hand.
  await on('2027-05-16');
  expect(await late()).toMatchObject([{ payBy: '2027-05-13', minor: 50_000n }]);
  // Once the whole invoice is late too, it still is one thing that needs a hand; with the plan ended it is the invoice's.
  const all = async () => (await todayView(house.owner)).queue.map(({ kind }) => kind);
  await setClock(workshop.standIns, instantInZone('2027-09-01' as CalendarDate, '12:00', house.business.zone));
  expect(await all()).toEqual(['parts']);
  await cancelPlan(house.owner, id, false, true);
  expect(await all()).toEqual(['late']);
  const ended = instantInZone('2027-09-02' as CalendarDate, '12:00', house.business.zone);
  await inBusiness(programContext(house.business.id), async (tx) => {
    const business = await businessById(tx);
    await updateBusiness(tx, { ...business, reminders: [1] });
  });
  await remindOfParts(programContext(house.business.id, ended));
  const reminders = await asSuperuser(
    workshop.admin,
    `select id from messages where kind = 'part-due' and business_id = $1 and details ? 'offset'`,
    [house.business.id],
  );
  expect(reminders).toEqual([]);
  const attempts = await asSuperuser(workshop.admin, 'select id from payments where business_id = $1', [
    house.business.id,
  ]);
  expect(attempts).toEqual([]);
});
