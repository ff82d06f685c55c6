/** The day's batch: what the processor settles, closed once, compared with its own book. */
import { randomUUID } from 'node:crypto';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { instantInZone } from '@/core/dates/zone';
import { chargeDue } from '@/flows/charging/charge-due';
import { programContext } from '@/flows/door/program';
import { recordReceived } from '@/flows/payment/receive-payment';
import { refundPayment } from '@/flows/payment/refund-payment';
import { takeBackReceived } from '@/flows/payment/take-back-received';
import { takePayment } from '@/flows/payment/take-payment';
import { storePartner } from '@/flows/records/partners';
import { services } from '@/outside/services';
import { asSuperuser } from '../../../tests/support/database';
import { playMinute } from '../../../tests/support/minute';
import { paidOrder, placedOffer } from '../../../tests/support/offers';
import { planTerms, runningPlan, setClock } from '../../../tests/support/plans';
import { back, backOf } from '../../../tests/support/refunds';
import { cardToken, foundHouse, type House, sentInvoice, sharedWorkshop } from '../../../tests/support/workshop';
import { closeDays, compareAgain } from './close-days';
import { batchCsv, batchList, batchSheet, settleDifferences } from './day-batches';
import { todayView } from './today';

const DAY = '2027-03-01' as CalendarDate;
const workshop = await sharedWorkshop();
let house: House;
afterEach(() => {
  vi.restoreAllMocks();
});
beforeEach(async () => {
  house = await foundHouse();
});

const clockAt = async (day: CalendarDate, hour: string): Promise<Date> => {
  const instant = instantInZone(day, hour, house.business.zone);
  await setClock(workshop.standIns, instant);
  return instant;
};

async function payInvoice(card = 'corvid-good'): Promise<void> {
  const { link } = await sentInvoice(house);
  const token = await cardToken(workshop.standIns, card);
  await takePayment(link, { attemptKey: randomUUID(), cardToken: token, amountMinor: 11_000n }, randomUUID());
}

/** An invoice of 110.00 and a plan's charge of 22.00, both paid on the day. */
async function aDay(): Promise<void> {
  await clockAt(addDays(DAY, -1), '12:00');
  await runningPlan(house, workshop.standIns, planTerms(house, DAY));
  await clockAt(DAY, '10:00');
  await chargeDue(house.business.id);
  await payInvoice();
}

test('a day is open until midnight, then closed once with what each channel brought, and the books agree', async () => {
  await aDay();
  const open = (await batchList(house.reader, null)).rows;
  expect(open.map(({ day, checkedAt }) => [day, checkedAt])).toEqual([[DAY, null]]);
  // 2.9 percent and 0.30 of each: 3.19 + 0.30, and 0.64 + 0.30.
  const sums = [
    {
      currency: 'USD',
      sales: 2,
      salesMinor: 13_200n,
      backs: 0,
      backMinor: 0n,
      feesMinor: 443n,
      disputes: 0,
      disputedMinor: 0n,
      disputeFeesMinor: 0n,
      netMinor: 12_757n,
      channels: [
        { channel: 'plan', sales: 1, salesMinor: 2_200n },
        { channel: 'invoice', sales: 1, salesMinor: 11_000n },
      ],
    },
  ];
  expect(open[0]?.sums).toEqual(sums);
  // Ten past midnight is too early, payments of the last moment may still be written down.
  await clockAt(addDays(DAY, 1), '00:10');
  expect(await playMinute()).toEqual([]);
  expect((await batchList(house.owner, null)).rows[0]?.checkedAt).toBeNull();
  await clockAt(addDays(DAY, 1), '00:20');
  expect(await playMinute()).toEqual([]);
  const [closed] = (await batchList(house.owner, null)).rows;
  expect(closed).toMatchObject({ day: DAY, sums, differences: [] });
  expect(closed?.checkedAt).not.toBeNull();
  // What comes later on another day changes nothing of it.
  await payInvoice();
  await closeDays(programContext(house.business.id, await clockAt(addDays(DAY, 2), '01:00')));
  const { rows } = await batchList(house.owner, null);
  expect(rows.map(({ day, sums: [sum] }) => [day, sum?.netMinor])).toEqual([
    [addDays(DAY, 1), 10_651n],
    [DAY, 12_757n],
  ]);
});

test('several closing at once write each day once, and months that were missed are made up for', async () => {
  await clockAt(addDays(DAY, -80), '12:00');
  await payInvoice();
  await aDay();
  const now = await clockAt(addDays(DAY, 1), '09:00');
  await Promise.all(Array.from({ length: 4 }, () => closeDays(programContext(house.business.id, now))));
  const { rows } = await batchList(house.owner, null);
  expect(rows.map(({ day }) => day)).toEqual([DAY, addDays(DAY, -80)]);
  expect(rows.every(({ differences }) => differences.length === 0)).toBe(true);
});

test('while the processor does not answer, the day waits', async () => {
  await aDay();
  const now = await clockAt(addDays(DAY, 1), '09:00');
  const silent = vi.spyOn(services().cards, 'book').mockResolvedValue(null);
  await closeDays(programContext(house.business.id, now));
  expect((await batchList(house.owner, null)).rows[0]?.checkedAt).toBeNull();
  silent.mockRestore();
  await closeDays(programContext(house.business.id, now));
  expect((await batchList(house.owner, null)).rows[0]?.checkedAt).not.toBeNull();
  vi.spyOn(services().cards, 'book').mockResolvedValueOnce(null);
  await expect(compareAgain(house.owner, DAY)).rejects.toMatchObject({ code: 'processor-silent' });
});

test('what only the processor has, and what was changed here, is found, stands in Today, and is looked into', async () => {
  await aDay();
  await services().cards.sale({
    key: `${house.business.id}.${randomUUID()}`,
    amount: { minor: 777n, currency: 'USD' },
    token: await cardToken(workshop.standIns, 'corvid-good'),
    reference: 'Keyed in at the terminal',
    returnUrl: 'http://localhost:1',
  });
  await asSuperuser(
    workshop.admin,
    `update payments set fee_minor = fee_minor + 5 where business_id = $1 and channel = 'plan'`,
    [house.business.id],
  );
  await closeDays(programContext(house.business.id, await clockAt(addDays(DAY, 1), '09:00')));
  const { batch } = await batchSheet(house.reader, DAY);
  expect(batch.differences.map(({ kind, oursMinor, theirsMinor }) => [kind, oursMinor, theirsMinor])).toEqual([
    ['fee', 99n, 94n],
    ['only-there', 0n, 777n],
  ]);
  const inQueue = async () => (await todayView(house.owner)).queue.filter(({ kind }) => kind === 'batch').length;
  expect(await inQueue()).toBe(1);
  await asSuperuser(
    workshop.admin,
    `update payments set fee_minor = fee_minor - 5 where business_id = $1 and channel = 'plan'`,
    [house.business.id],
  );
  expect(await compareAgain(house.owner, DAY)).toEqual({ differences: 1 });
  await expect(settleDifferences(house.reader, DAY, 'No')).rejects.toMatchObject({ code: 'not-allowed' });
  await settleDifferences(house.clerk, DAY, 'Keyed in at the terminal');
  expect(await inQueue()).toBe(0);
  expect((await batchSheet(house.owner, DAY)).batch).toMatchObject({
    settledBy: house.clerk.name,
    settledWords: 'Keyed in at the terminal',
  });
});

test('a refund and a void count on their own day; the fee comes back with the void only, and the books agree', async () => {
  await clockAt(DAY, '10:00');
  const { called } = await placedOffer(house, { prices: { USD: '40' }, tip: ['10'] });
  // 44.00 each, one with a tip of 4.40 on it: fees 1.58 and 1.70.
  const [kept, whole] = [await paidOrder(workshop, called), await paidOrder(workshop, called, { tip: '10%' })];
  await refundPayment(house.owner, kept, backOf(1000n));
  await clockAt(addDays(DAY, 1), '10:00');
  await refundPayment(house.owner, whole, back({ by: 'void' }));
  await closeDays(programContext(house.business.id, await clockAt(addDays(DAY, 2), '09:00')));
  const { rows } = await batchList(house.owner, null);
  expect(rows.map(({ day, differences }) => [day, differences])).toEqual([
    [addDays(DAY, 1), []],
    [DAY, []],
  ]);
  expect(rows.map(({ sums }) => sums[0])).toMatchObject([
    { sales: 0, backs: 1, backMinor: 4840n, feesMinor: -170n, netMinor: -4670n },
    { sales: 2, salesMinor: 9240n, backs: 1, backMinor: 1000n, feesMinor: 328n, netMinor: 7912n },
  ]);
  const { lines } = await batchSheet(house.reader, DAY);
  expect(lines.map(({ back, amountMinor }) => [back, amountMinor])).toEqual([
    [null, 4400n],
    [null, 4840n],
    ['refund', -1000n],
  ]);
});

test('the day as CSV holds every movement, and another business sees none of it', async () => {
  await aDay();
  const [headings, ...lines] = (await batchCsv(house.reader, DAY)).trim().split('\r\n');
  expect(headings).toBe('day,at,kind,customer,for,channel,card,amount,fee,net,currency,receipt,reference');
  expect(lines.map((line) => line.split(',').slice(7, 11).join(' ')).sort()).toEqual([
    '110.00 3.49 106.51 USD',
    '22.00 0.94 21.06 USD',
  ]);
  // By the business's clock, as programs read it.
  for (const line of lines) expect(line.split(',')[1]).toMatch(new RegExp(`^${DAY}T1\\d:\\d\\d:\\d\\d[+-]\\d\\d:00$`));
  await closeDays(programContext(house.business.id, await clockAt(addDays(DAY, 1), '09:00')));
  const other = await foundHouse('Elsewhere');
  await expect(batchSheet(other.owner, DAY)).rejects.toMatchObject({ code: 'not-found' });
  await expect(settleDifferences(other.owner, DAY, 'Mine')).rejects.toMatchObject({ code: 'not-found' });
  expect((await batchList(other.owner, null)).rows).toEqual([]);
  await expect(batchSheet(house.owner, '2027-02-30')).rejects.toMatchObject({ code: 'not-found' });
});

test('cash, a cheque and a transfer stand beside the cards of their day, and what is taken back is gone; partners’ parts are not on their way to the business', async () => {
  await aDay();
  const { id } = await sentInvoice(house);
  const received = (amountMinor: bigint, method: 'cash' | 'cheque' | 'transfer', receivedOn: string, reference = '') =>
    recordReceived(house.owner, id, { amountMinor, method, reference, receivedOn, requestKey: randomUUID() });
  await received(1_000n, 'cheque', DAY, 'No. 77');
  await received(2_000n, 'cash', DAY);
  await received(500n, 'cash', DAY);
  await received(300n, 'transfer', addDays(DAY, -3));
  const partner = await storePartner(house.owner, null, { name: 'Selma Quist', email: '' });
  const split = {
    partners: [{ partnerId: partner.id, percent: '50' }],
    keep: '',
    feeFrom: 'business',
    of: 'net',
  } as const;
  const offer = await placedOffer(house, { prices: { USD: '40' }, split });
  await paidOrder(workshop, offer.called);
  const sheet = await batchSheet(house.reader, DAY);
  expect(sheet.batch.byHand).toEqual([
    { currency: 'USD', method: 'cash', count: 2, minor: 2_500n },
    { currency: 'USD', method: 'cheque', count: 1, minor: 1_000n },
  ]);
  // 132.00 and 44.00 by card; fees of 4.43 and 1.58; half of 40.00 is the partner's, the tax of 4.00 is not shared.
  expect(sheet.totals).toEqual([
    { currency: 'USD', partnersMinor: 2_000n, ownMinor: 14_999n, byHandMinor: 3_500n, allMinor: 20_499n },
  ]);
  const csv = (await batchCsv(house.reader, DAY)).trim().split('\r\n');
  expect(csv.filter((line) => line.includes(',cheque,'))).toEqual([
    expect.stringMatching(/10\.00,0\.00,10\.00,USD,.*,No\. 77$/),
  ]);
  const days = async () =>
    (await batchList(house.reader, null)).rows.map(({ day, sums, byHand }) => [day, sums.length, byHand.length]);
  expect(await days()).toEqual([
    [DAY, 1, 2],
    [addDays(DAY, -3), 0, 1],
  ]);
  const transfer = (await batchSheet(house.reader, addDays(DAY, -3))).hand[0]?.payment.id ?? '';
  await takeBackReceived(house.owner, transfer, { reason: 'Typed wrong', tell: false });
  expect(await days()).toEqual([[DAY, 1, 2]]);
});
