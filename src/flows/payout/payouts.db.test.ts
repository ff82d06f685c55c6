/** Paying out: to the business and its partners, each cent once, whatever the bank says and whoever asks how often. */
import { randomUUID } from 'node:crypto';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { payouts } from '@/core/payout/payouts';
import { accountBalances, ledgerTroubles } from '@/db/ledger';
import { inBusiness } from '@/db/transaction';
import { todayView } from '@/flows/day/today';
import { programContext } from '@/flows/door/program';
import { refundPayment } from '@/flows/payment/refund-payment';
import { takePayment } from '@/flows/payment/take-payment';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { storePartner } from '@/flows/records/partners';
import { services } from '@/outside/services';
import { asSuperuser } from '../../../tests/support/database';
import { playMinute } from '../../../tests/support/minute';
import { paidOrder, placedOffer } from '../../../tests/support/offers';
import { bookOf, clockAt, closeAccount, confirmedAccount, openAccount, playDays } from '../../../tests/support/payouts';
import { backOf } from '../../../tests/support/refunds';
import {
  cardToken,
  foundHouse,
  type House,
  mailOf,
  sentInvoice,
  sharedWorkshop,
} from '../../../tests/support/workshop';
import { accountHolder, confirmAccount, giveAccount, giveOwnAccount, payoutAccounts } from './accounts';
import { askPartnerLink, partnerPage, partnerPageCsv } from './partner-page';
import { paidByHand, payAgain } from './pay-again';
import { payOutNow } from './pay-out-due';
import { payoutList } from './payout-list';
import { payoutCsv, payoutSheet } from './payout-sheet';
import { keepPayoutPolicy } from './policy';

// A Monday.
const DAY = '2027-03-01' as CalendarDate;
const workshop = await sharedWorkshop();
let house: House;
afterEach(() => {
  vi.restoreAllMocks();
});
beforeEach(async () => {
  house = await foundHouse();
});

const at = (day: CalendarDate, hour: string) => clockAt(workshop, house, day, hour);
const play = (...days: CalendarDate[]) => playDays(workshop, house, days);
const of = <T>(work: Parameters<typeof inBusiness<T>>[1]) => inBusiness(programContext(house.business.id), work);
const balance = async (account: Parameters<typeof accountBalances>[1], currency = 'USD'): Promise<bigint> =>
  (await of((tx) => accountBalances(tx, account))).find((sum) => sum.currency === currency)?.minor ?? 0n;
const daily = () => keepPayoutPolicy(house.owner, { when: { kind: 'daily' }, smallest: {} });

/** 110.00 by card, less 3.49. */
async function payInvoice(): Promise<void> {
  const { link } = await sentInvoice(house);
  const token = await cardToken(workshop.standIns, 'corvid-good');
  await takePayment(link, { attemptKey: randomUUID(), cardToken: token, amountMinor: 11_000n }, randomUUID());
}

/** A partner who gets half of what an offer of 40.00 brings, and the offer. */
async function shared(feeFrom: 'business' | 'all' = 'business') {
  const partner = await storePartner(house.owner, null, { name: 'Selma Quist', email: 'selma@quist.example' });
  const split = { partners: [{ partnerId: partner.id, percent: '50' }], keep: '', feeFrom, of: 'net' } as const;
  const { called } = await placedOffer(house, { prices: { USD: '40' }, split });
  return { partner, called };
}

async function parts(id: string): Promise<string> {
  let text = '';
  for await (const part of (await payoutCsv(house.reader, id)).parts) text += part;
  return text;
}

test('an account is confirmed by the two small sums on its statement; three times wrong and it is not used', async () => {
  await at(DAY, '10:00');
  const number = await openAccount(workshop, 'Sallow Joinery');
  expect(await accountHolder(house.owner, number.replace(/(.{4})/g, '$1 '))).toBe('Sallow Joinery');
  await expect(giveAccount(house.clerk, { partnerId: null, currency: 'USD', number })).rejects.toMatchObject({
    code: 'not-allowed',
  });
  const { id } = await giveAccount(house.owner, { partnerId: null, currency: 'USD', number });
  expect(await playMinute()).toEqual([]);
  expect(await bookOf(workshop, number)).toEqual([]);
  // The bank books them on its next day.
  await at(addDays(DAY, 1), '16:00');
  const sums = (await bookOf(workshop, number)).map(({ minor }) => BigInt(minor));
  expect(sums).toHaveLength(2);
  await expect(confirmAccount(house.owner, id, [1n, 100n])).rejects.toMatchObject({ code: 'credits-differ' });
  const other = await foundHouse('Elsewhere');
  await expect(confirmAccount(other.owner, id, sums)).rejects.toMatchObject({ code: 'not-found' });
  await confirmAccount(house.owner, id, [...sums].reverse());
  expect((await payoutAccounts(house.reader, null)).map(({ state }) => state)).toEqual(['checked']);
  // The same again changes nothing; another one needs its own sums, and the first stays in use until then.
  await confirmAccount(house.owner, id, [1n, 2n]);
  await expect(giveAccount(house.owner, { partnerId: null, currency: 'USD', number })).rejects.toMatchObject({
    code: 'account-in-use',
  });
  const next = await openAccount(workshop, 'Sallow Joinery');
  const { id: later } = await giveAccount(house.owner, { partnerId: null, currency: 'USD', number: next });
  for (const code of ['credits-differ', 'credits-differ', 'credits-refused', 'account-not-checking'])
    await expect(confirmAccount(house.owner, later, [100n, 200n])).rejects.toMatchObject({ code });
  expect((await payoutAccounts(house.reader, null)).map(({ state }) => state).sort()).toEqual(['checked', 'refused']);
  for (const [typed, code] of [
    ['560000000000', 'account-unknown'],
    ['5600 0040 8914', 'account-closed'],
  ] as const)
    await expect(giveAccount(house.owner, { partnerId: null, currency: 'EUR', number: typed })).rejects.toMatchObject({
      code: typed.startsWith('5600 ') ? expect.stringMatching(/account-(closed|unknown)/) : code,
    });
});

test('the day’s net goes out on the next banking day, partners’ parts apart, arrives, and the books are at zero', async () => {
  await at(addDays(DAY, -3), '10:00');
  const { partner, called } = await shared();
  const [own, hers] = [await confirmedAccount(workshop, house), await confirmedAccount(workshop, house, partner.id)];
  await daily();
  await at(DAY, '10:00');
  await payInvoice();
  await paidOrder(workshop, called);
  expect(await play(addDays(DAY, 1))).toEqual([]);
  const [first, second] = [...(await payoutList(house.reader)).rows].reverse();
  // 110.00 − 3.49 and 44.00 − 1.58; half of 40.00 is hers.
  expect([first, second]).toMatchObject([
    { partner: '', amountMinor: 12_893n, state: 'sent', madeOn: addDays(DAY, 1) },
    { partner: 'Selma Quist', amountMinor: 2_000n, state: 'sent' },
  ]);
  expect([await balance('processor-clearing'), await balance('on-the-way'), await balance('partners')]).toEqual([
    0n,
    14_893n,
    -2_000n,
  ]);
  expect(await play(addDays(DAY, 2), addDays(DAY, 3))).toEqual([]);
  const list = await payoutList(house.reader);
  expect(list.rows.map(({ state, settledOn }) => [state, settledOn])).toEqual([
    ['arrived', addDays(DAY, 2)],
    ['arrived', addDays(DAY, 2)],
  ]);
  expect([await balance('on-the-way'), await balance('partners'), await balance('bank')]).toEqual([0n, 0n, 12_893n]);
  const came = async (number: string) => (await bookOf(workshop, number)).filter(({ reference }) => reference);
  expect((await came(own)).map(({ minor }) => minor)).toEqual([12_893]);
  expect((await came(hers)).map(({ minor, words }) => [minor, words])).toEqual([[2_000, 'Sallow Joinery payout 2']]);
  expect(await of(ledgerTroubles)).toEqual([]);
  // The sheet works it out from the payments down, and its file holds each of them.
  const sheet = await payoutSheet(house.reader, first?.id ?? '');
  expect(sheet.working).toMatchObject({
    sales: 2,
    salesMinor: 15_400n,
    feesMinor: 507n,
    partnersMinor: 2_000n,
    paidMinor: 12_893n,
  });
  expect(sheet.table).toMatchObject({ channels: ['invoice', 'link'], totals: [11_000n, 4_400n], allMinor: 15_400n });
  expect(sheet.stubs.map(({ payout, movements }) => [payout.partner, movements.map(({ minor }) => minor)])).toEqual([
    ['Selma Quist', [2_000n]],
  ]);
  const nets = (await parts(first?.id ?? ''))
    .trim()
    .split('\r\n')
    .slice(1)
    .map((line) => Math.round(Number(line.split(',')[9]) * 100));
  expect(nets.reduce((sum, net) => sum + net, 0)).toBe(12_893);
});

test('what comes back goes again once, to the account that is confirmed then; a partner can be paid by hand instead', async () => {
  await at(addDays(DAY, -3), '10:00');
  const { partner, called } = await shared();
  const [own, hers] = [await confirmedAccount(workshop, house), await confirmedAccount(workshop, house, partner.id)];
  await daily();
  await at(DAY, '10:00');
  await paidOrder(workshop, called);
  await play(addDays(DAY, 1));
  await closeAccount(workshop, own);
  await closeAccount(workshop, hers);
  expect(await play(addDays(DAY, 2))).toEqual([]);
  const returned = async () => (await payoutList(house.owner)).returned;
  expect((await returned()).map(({ partner: who, reason }) => [who, reason])).toEqual([
    ['', 'AC04'],
    ['Selma Quist', 'AC04'],
  ]);
  expect((await todayView(house.owner)).queue.filter(({ kind }) => kind === 'payout')).toHaveLength(2);
  expect([await balance('on-the-way'), await balance('bank')]).toEqual([0n, 0n]);
  const [mine, theirs] = await returned();
  await expect(payAgain(house.owner, mine?.id ?? '')).rejects.toMatchObject({ code: 'account-not-checked' });
  await expect(payAgain(house.clerk, mine?.id ?? '')).rejects.toMatchObject({ code: 'not-allowed' });
  // A new account, and twenty presses beside it.
  const better = await confirmedAccount(workshop, house);
  await Promise.allSettled(Array.from({ length: 20 }, () => payAgain(house.owner, mine?.id ?? '')));
  const hands = await Promise.allSettled(Array.from({ length: 20 }, () => paidByHand(house.owner, theirs?.id ?? '')));
  expect(hands.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
  await expect(paidByHand(house.owner, mine?.id ?? '')).rejects.toMatchObject({ code: 'payout-not-returned' });
  expect(await play(addDays(DAY, 3), addDays(DAY, 4), addDays(DAY, 7), addDays(DAY, 8))).toEqual([]);
  // 44.00 − 1.58 − 20.00, and then the 20.00 that the partner got by hand.
  expect((await bookOf(workshop, better)).filter(({ reference }) => reference).map(({ minor }) => minor)).toEqual([
    2_242, 2_000,
  ]);
  expect([await balance('processor-clearing'), await balance('on-the-way'), await balance('partners')]).toEqual([
    0n,
    0n,
    0n,
  ]);
  // 42.42 came, of which 20.00 went to the partner by hand.
  expect(await balance('bank')).toBe(2_242n);
  expect(await of(ledgerTroubles)).toEqual([]);
});

test('less than the smallest sum, or below 0, is carried on; a part is held back and released on its day', async () => {
  await at(addDays(DAY, -3), '10:00');
  await confirmedAccount(workshop, house);
  await keepPayoutPolicy(house.owner, { when: { kind: 'daily' }, smallest: { USD: '15000' } });
  vi.spyOn(services().cards, 'payoutTerms').mockResolvedValue({ lag: 1, reserve: { percent: '10', days: 7 } });
  await at(DAY, '10:00');
  await payInvoice();
  await play(addDays(DAY, 1));
  expect((await payoutList(house.reader)).rows).toEqual([]);
  await at(addDays(DAY, 1), '10:00');
  await payInvoice();
  await play(addDays(DAY, 2), addDays(DAY, 3));
  // Twice 106.51, of each 10.65 held back.
  const [only] = (await payoutList(house.reader)).rows;
  expect(only).toMatchObject({
    amountMinor: 19_172n,
    carriedMinor: 9_586n,
    reservedMinor: 2_130n,
    madeOn: addDays(DAY, 2),
  });
  expect((await payoutList(house.reader)).held.map(({ until, minor }) => [until, minor])).toEqual([
    [addDays(DAY, 7), 1_065n],
    [addDays(DAY, 8), 1_065n],
  ]);
  await keepPayoutPolicy(house.owner, { when: { kind: 'daily' }, smallest: {} });
  await play(...[4, 5, 6, 7, 8, 9, 10].map((days) => addDays(DAY, days)));
  const rows = (await payoutList(house.reader)).rows;
  expect(rows.map(({ amountMinor, releasedMinor }) => [amountMinor, releasedMinor])).toEqual([
    [1_065n, 1_065n],
    [1_065n, 1_065n],
    [19_172n, 0n],
  ]);
  expect([await balance('processor-clearing'), await balance('bank')]).toEqual([0n, 21_302n]);
  expect(await of(ledgerTroubles)).toEqual([]);
});

test('while bank or processor are silent it waits, what the bank took without saying so is not asked twice, and by hand is now', async () => {
  await at(addDays(DAY, -3), '10:00');
  const own = await confirmedAccount(workshop, house);
  await keepPayoutPolicy(house.owner, { when: { kind: 'by-hand' }, smallest: {} });
  await at(DAY, '10:00');
  await payInvoice();
  await play(addDays(DAY, 1));
  expect((await payoutList(house.reader)).gathering).toMatchObject([
    { minor: 10_651n, on: null, days: [{ day: DAY }] },
  ]);
  const silent = vi.spyOn(services().cards, 'payoutTerms').mockResolvedValue(null);
  await expect(payOutNow(house.owner)).rejects.toMatchObject({ code: 'processor-silent' });
  silent.mockRestore();
  const presses = await Promise.allSettled(Array.from({ length: 20 }, () => payOutNow(house.owner)));
  expect(presses.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
  // The bank takes it, and its answer is lost.
  const { transfer } = services().bank;
  vi.spyOn(services().bank, 'transfer').mockImplementationOnce(async (request) => {
    await transfer(request);
    return null;
  });
  expect(await playMinute()).toEqual([]);
  expect((await payoutList(house.reader)).rows).toMatchObject([{ state: 'made' }]);
  await play(addDays(DAY, 2), addDays(DAY, 3));
  expect((await bookOf(workshop, own)).filter(({ reference }) => reference)).toHaveLength(1);
  await at(addDays(DAY, 5), '10:00');
  await expect(payOutNow(house.owner)).rejects.toMatchObject({ code: 'no-banking-day' });
  await at(addDays(DAY, 7), '10:00');
  await expect(payOutNow(house.owner)).rejects.toMatchObject({ code: 'nothing-to-pay-out' });
  expect(await of(ledgerTroubles)).toEqual([]);
});

test('day by day the database comes to the payouts that the rule says for all days at once', async () => {
  await at(addDays(DAY, -3), '10:00');
  await confirmedAccount(workshop, house);
  const reserve = { percent: '12.5', days: 9 };
  vi.spyOn(services().cards, 'payoutTerms').mockResolvedValue({ lag: 2, reserve });
  await keepPayoutPolicy(house.owner, { when: { kind: 'weekly', weekday: 3 }, smallest: { USD: '5000' } });
  const nets = [9_000n, -20_000n, 3_333n, 4_999n, 12_000n, 1n, 8_000n, -1_000n, 40_000n, 7_777n, 5_000n, 2_500n];
  const days = nets.map((net, index) => ({ day: addDays(DAY, index * 2), net }));
  for (const { day, net } of days)
    await asSuperuser(
      workshop.admin,
      `insert into day_batches (business_id, day, sums, differences, checked_at)
       values ($1, $2, jsonb_build_array(jsonb_build_object('currency', 'USD', 'sales', 1, 'salesMinor', $3::bigint, 'backs', 0,
         'backMinor', 0, 'feesMinor', 0, 'netMinor', $3::bigint, 'channels', '[]'::jsonb)), '[]', now())`,
      [house.business.id, day, String(net)],
    );
  const end = 50;
  await play(...Array.from({ length: end + 1 }, (_, index) => addDays(DAY, index)));
  const made = [...(await payoutList(house.reader)).rows].reverse();
  const wanted = payouts(
    days,
    { schedule: { kind: 'weekly', weekday: 3 }, lag: 2, minimum: 5_000n, reserve },
    addDays(DAY, end),
  );
  expect(wanted.payouts.length).toBeGreaterThan(2);
  expect(
    made.map(({ madeOn, amountMinor, reservedMinor, releasedMinor, carriedMinor }) => ({
      on: madeOn,
      amount: amountMinor,
      reserved: reservedMinor,
      released: releasedMinor,
      carried: carriedMinor,
    })),
  ).toEqual(wanted.payouts.map(({ days: _, ...payout }) => payout));
  const inThem = await Promise.all(made.map(async ({ id }) => (await payoutSheet(house.reader, id)).days));
  expect(inThem.map((list) => list.map(({ day }) => day))).toEqual(wanted.payouts.map((payout) => payout.days));
});

test('a refund after the payout takes from the next; a currency without an account waits', async () => {
  await at(addDays(DAY, -3), '10:00');
  const { partner, called } = await shared('all');
  const hers = await confirmedAccount(workshop, house, partner.id);
  const own = await confirmedAccount(workshop, house);
  await daily();
  await at(DAY, '10:00');
  const [first] = [await paidOrder(workshop, called)];
  await play(addDays(DAY, 1));
  await at(addDays(DAY, 1), '12:00');
  await refundPayment(house.owner, first, backOf(4_400n));
  await play(addDays(DAY, 2), addDays(DAY, 3));
  const gathering = (await payoutList(house.reader)).gathering;
  // She bears her part of the fee; her share is taken back, the fee is not given back.
  expect(gathering.map(({ partner: who, minor, tooLittle }) => [who, minor, tooLittle])).toEqual([
    ['', -2_400n, true],
    ['Selma Quist', -2_000n, true],
  ]);
  await at(addDays(DAY, 3), '12:00');
  await paidOrder(workshop, called);
  await paidOrder(workshop, called);
  await play(...[4, 7, 8].map((days) => addDays(DAY, days)));
  const sum = async (number: string) =>
    (await bookOf(workshop, number)).filter(({ reference }) => reference).reduce((all, { minor }) => all + minor, 0);
  expect(BigInt((await sum(own)) + (await sum(hers)))).toBe(3n * (4_400n - 158n) - 4_400n);
  expect([await balance('processor-clearing'), await balance('partners')]).toEqual([0n, 0n]);
  expect(await balance('bank')).toBe(BigInt(await sum(own)));
  const euros = await placedOffer(house, { prices: { USD: '30', EUR: '30' }, currencies: ['EUR'] });
  await paidOrder(workshop, euros.called, { currency: 'EUR' });
  await play(...[9, 10].map((days) => addDays(DAY, days)));
  expect((await payoutList(house.reader)).gathering).toMatchObject([{ currency: 'EUR', hasAccount: false }]);
  const abroad = await confirmedAccount(workshop, house, null, 'EUR');
  await play(...[11, 14, 15].map((days) => addDays(DAY, days)));
  expect((await bookOf(workshop, abroad)).filter(({ reference }) => reference).map(({ currency }) => currency)).toEqual(
    ['EUR'],
  );
  expect(await of(ledgerTroubles)).toEqual([]);
});

test('a month that is over is told to the partner once, with its papers; their page opens by a link that is ours and good', async () => {
  await at(addDays(DAY, -3), '10:00');
  const { partner, called } = await shared();
  await confirmedAccount(workshop, house, partner.id);
  await daily();
  await at(DAY, '10:00');
  await paidOrder(workshop, called);
  await play(addDays(DAY, 1), addDays(DAY, 2), addDays(DAY, 3));
  await at(addDays(DAY, 20), '10:00');
  await paidOrder(workshop, called);
  const april = '2027-04-01' as CalendarDate;
  await play(addDays(DAY, 30), april, addDays(april, 1));
  const queued = await asSuperuser<{ id: string }>(
    workshop.admin,
    `select id from messages where business_id = $1 and kind = 'partner-statement'`,
    [house.business.id],
  );
  expect(queued).toHaveLength(1);
  await handOverMessage(house.business.id, queued[0]?.id ?? '');
  const [mail] = (await mailOf(workshop.standIns, 'selma@quist.example')).filter(({ subject }) =>
    subject.startsWith('Your part in March 2027'),
  );
  expect(mail?.attachments.map(({ contentType }) => contentType)).toEqual(['application/pdf', 'text/csv']);
  // Both parts came in March; the second went out on its last day, and arrived in April.
  expect(mail?.text).toContain('$20.00');
  const token = /\/partner\/([\w.-]+)/.exec(mail?.text ?? '')?.[1] ?? '';
  const page = await partnerPage(token);
  expect(page).toMatchObject({ over: false, name: 'Selma Quist', months: [{ currency: 'USD' }] });
  expect(page?.months[0]?.movements.map(({ minor }) => minor)).toEqual([2_000n, 2_000n]);
  expect((await partnerPageCsv(token)).bytes.toString().trim().split('\r\n')).toHaveLength(3);
  expect(await partnerPage(`${token}x`)).toBeNull();
  // The link is over in the summer: a new one goes to the address on file only.
  await at(addDays(april, 60), '10:00');
  expect(await partnerPage(token)).toMatchObject({ over: true, name: '', months: [], accounts: [] });
  await expect(partnerPageCsv(token)).rejects.toMatchObject({ code: 'not-found' });
  await expect(giveOwnAccount(token, { currency: 'USD', number: '1' })).rejects.toMatchObject({ code: 'not-found' });
  await askPartnerLink(token);
  const [fresh] = await asSuperuser<{ to: string }>(
    workshop.admin,
    `select to_address as to from messages where business_id = $1 and kind = 'partner-page'`,
    [house.business.id],
  );
  expect(fresh?.to).toBe('selma@quist.example');
});
