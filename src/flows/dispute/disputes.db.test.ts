/** Disputes: what the bank takes, answers and decides is booked once, whoever hears of it how, and the file holds what is known. */

import { randomUUID } from 'node:crypto';
import { PDFDocument } from '@cantoo/pdf-lib';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import yauzl from 'yauzl';
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { WHOLE_REGISTER } from '@/core/register/ask';
import { accountBalances, ledgerTroubles } from '@/db/ledger';
import { inBusiness } from '@/db/transaction';
import { batchSheet } from '@/flows/day/day-batches';
import { todayView } from '@/flows/day/today';
import { disputeList } from '@/flows/dispute/dispute-sheet';
import { programContext } from '@/flows/door/program';
import { storeFile } from '@/flows/file/store-file';
import { paymentSheet } from '@/flows/payment/payment-sheet';
import { refundPayment, settleRefund } from '@/flows/payment/refund-payment';
import { takePayment } from '@/flows/payment/take-payment';
import { payoutList } from '@/flows/payout/payout-list';
import { payoutCsv, payoutSheet } from '@/flows/payout/payout-sheet';
import { keepPayoutPolicy } from '@/flows/payout/policy';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { hearCardEvent } from '@/flows/processor/hear-card-event';
import { storePartner } from '@/flows/records/partners';
import { registerOf } from '@/flows/register/register';
import { checkedInput } from '@/input/checked';
import { DisputePageInput } from '@/input/dispute-input';
import { services } from '@/outside/services';
import { asSuperuser } from '../../../tests/support/database';
import { decideDispute, disputePayment } from '../../../tests/support/disputes';
import { underTheKnife } from '../../../tests/support/knife';
import { playMinute } from '../../../tests/support/minute';
import { paidOrder, placedOffer } from '../../../tests/support/offers';
import { clockAt, confirmedAccount, playDays } from '../../../tests/support/payouts';
import { backOf } from '../../../tests/support/refunds';
import { seeded } from '../../../tests/support/seeded';
import {
  cardToken,
  foundHouse,
  type House,
  mailOf,
  sentInvoice,
  sharedWorkshop,
} from '../../../tests/support/workshop';
import { acceptDispute, prepareAnswer, sendAnswer } from './answer-dispute';
import { disputePage, disputeSheet } from './dispute-sheet';
import { disputeFile, paymentFile } from './file-paper';
import { lookForDisputes } from './hear-disputes';

// A Monday.
const DAY = '2027-03-01' as CalendarDate;
const workshop = await sharedWorkshop();
let house: House;
afterEach(() => {
  vi.restoreAllMocks();
});
beforeEach(async () => {
  house = await foundHouse();
  await at(DAY, '10:00');
});

const at = (day: CalendarDate, hour: string) => clockAt(workshop, house, day, hour);
const of = <T>(work: Parameters<typeof inBusiness<T>>[1]) => inBusiness(programContext(house.business.id), work);
const balance = async (account: Parameters<typeof accountBalances>[1]): Promise<bigint> =>
  (await of((tx) => accountBalances(tx, account))).find(({ currency }) => currency === 'USD')?.minor ?? 0n;
const sound = async () => expect(await of(ledgerTroubles)).toEqual([]);

/** A partner who gets half of what an offer of 40.00 brings, and a payment of it: 44.00 with tax, 48.40 with a tip. */
async function sharedPayment(card = 'corvid-good', tip = '') {
  const partner = await storePartner(house.owner, null, { name: 'Selma Quist', email: '' });
  const split = {
    partners: [{ partnerId: partner.id, percent: '50' }],
    keep: '',
    feeFrom: 'business',
    of: 'net',
  } as const;
  const { called } = await placedOffer(house, { prices: { USD: '40' }, split, tip: ['10'] });
  return { partner, called, paymentId: await paidOrder(workshop, called, tip ? { tip } : {}, card) };
}

const look = () => lookForDisputes(programContext(house.business.id));

/** The dispute of this business, once it is heard of. */
async function heard(paymentId: string, reason?: string) {
  expect(await disputePayment(workshop, paymentId, reason)).toBe(true);
  await look();
  const { open } = await disputeList(house.owner);
  const found = open.find((one) => one.paymentId === paymentId);
  if (!found) throw new Error('Not heard of');
  return found;
}

const decide = async (key: string, won: boolean): Promise<void> => {
  expect(await decideDispute(workshop, key, won)).toBe(true);
  await look();
};

test('opened, it takes sum, fee and the partner’s part at once; Today, the owners and the register say so; it is heard of once', async () => {
  const { paymentId } = await sharedPayment('corvid-good', '10%');
  const before = await balance('processor-clearing');
  const { id, answerBy } = await heard(paymentId);
  await Promise.all([look(), look()]);
  expect(await balance('processor-clearing')).toBe(before - 4840n - 1500n);
  expect([await balance('disputed'), await balance('dispute-fees'), await balance('partners')]).toEqual([
    4840n,
    1500n,
    0n,
  ]);
  await sound();
  const work = (await todayView(house.reader)).work.groups.find(({ group }) => group === 'defend');
  expect(work?.rows.map(({ first }) => first.kind)).toEqual(['dispute']);
  const { rows } = await registerOf(house.reader, { ...WHOLE_REGISTER, state: 'disputed' }, null);
  expect(rows.map((row) => [row.id, row.dispute])).toEqual([[paymentId, 'open']]);
  await expect(refundPayment(house.owner, paymentId, backOf(100n))).rejects.toMatchObject({ code: 'disputed' });
  await expect(refundPayment(house.owner, paymentId, backOf(100n, { method: 'cash' }))).rejects.toMatchObject({
    code: 'disputed',
  });
  const queued = await asSuperuser<{ id: string }>(
    workshop.admin,
    `select id from messages where business_id = $1 and kind = 'dispute'`,
    [house.business.id],
  );
  expect(queued).toHaveLength(1);
  await handOverMessage(house.business.id, queued[0]?.id ?? '');
  const [mail] = (await mailOf(workshop.standIns, `owner-${house.business.id.slice(0, 8)}@sallow.example`)).filter(
    ({ subject }) => subject.includes('is disputed'),
  );
  expect(mail?.text).toContain(`/money/disputes/${id}`);
  expect(mail?.text).toContain('does not recognise');
  // Three days before the last one they are reminded, once.
  await at(addDays(DAY, 11), '10:00');
  await look();
  await look();
  const reminded = await asSuperuser(
    workshop.admin,
    `select 1 from messages where business_id = $1 and kind = 'dispute' and details->>'text' = 'reminder'`,
    [house.business.id],
  );
  expect(reminded).toHaveLength(1);
  expect(answerBy > new Date()).toBe(true);
  const other = await foundHouse('Elsewhere');
  await expect(disputeSheet(other.owner, id)).rejects.toMatchObject({ code: 'not-found' });
  await expect(acceptDispute(house.clerk, id)).rejects.toMatchObject({ code: 'not-allowed' });
});

test('a card that disputes later is heard of at the daily closing; the day, the payout and both books say the same', async () => {
  const { paymentId, partner, called } = await sharedPayment('corvid-dispute');
  await keepPayoutPolicy(house.owner, { when: { kind: 'daily' }, smallest: {} });
  await confirmedAccount(workshop, house);
  await confirmedAccount(workshop, house, partner.id);
  const days = Array.from({ length: 9 }, (_, n) => addDays(DAY, n + 1));
  expect(await playDays(workshop, house, days)).toEqual([]);
  const { open } = await disputeList(house.reader);
  expect(open.map((one) => one.paymentId)).toEqual([paymentId]);
  const on = addDays(DAY, 8);
  const { batch, lines, totals } = await batchSheet(house.reader, on);
  expect(batch.differences).toEqual([]);
  expect(batch.sums).toMatchObject([{ disputes: 1, disputedMinor: 4400n, disputeFeesMinor: 1500n, netMinor: -5900n }]);
  expect(lines.map(({ back, amountMinor, feeMinor }) => [back, amountMinor, feeMinor])).toEqual([
    ['disputed', -4400n, 1500n],
  ]);
  expect(totals).toMatchObject([{ partnersMinor: -2000n, ownMinor: -3900n }]);
  // It comes out of the next payouts: both begin below 0.
  const { gathering } = await payoutList(house.reader);
  expect(gathering.map(({ minor }) => minor).sort()).toEqual([-2000n, -3900n].sort());
  const [key] = open.map((one) => one.key);
  await at(addDays(DAY, 10), '10:00');
  await decide(key ?? '', true);
  expect(await playDays(workshop, house, [addDays(DAY, 11)])).toEqual([]);
  const won = await batchSheet(house.reader, addDays(DAY, 10));
  expect(won.batch.differences).toEqual([]);
  expect(won.batch.sums).toMatchObject([
    { disputes: 1, disputedMinor: -4400n, disputeFeesMinor: -1500n, netMinor: 5900n },
  ]);
  expect((await payoutList(house.reader)).gathering.map(({ minor }) => minor)).toEqual([0n, 0n]);
  expect(await balance('processor-clearing')).toBe(0n);
  expect(await balance('disputed')).toBe(0n);
  await sound();
  // The next payout holds both ways of it, each movement in its file; then nothing is on its way any more.
  await at(addDays(DAY, 11), '15:00');
  await paidOrder(workshop, called);
  expect(
    await playDays(
      workshop,
      house,
      [12, 13, 14, 15, 16].map((n) => addDays(DAY, n)),
    ),
  ).toEqual([]);
  const [payout] = (await payoutList(house.reader)).rows.filter(({ partnerId }) => partnerId === null);
  expect(payout).toMatchObject({ state: 'arrived', amountMinor: 4400n - 158n - 2000n });
  let text = '';
  for await (const part of (await payoutCsv(house.reader, payout?.id ?? '')).parts) text += part;
  const rows = text
    .trim()
    .split('\r\n')
    .slice(1)
    .map((line) => line.split(','));
  expect(rows.map((cells) => cells[2])).toEqual(['disputed', 'dispute-won', 'sale', 'partner']);
  expect(rows.reduce((sum, cells) => sum + Math.round(Number(cells[9]) * 100), 0)).toBe(2242);
  const { working } = await payoutSheet(house.reader, payout?.id ?? '');
  expect(working).toMatchObject({ disputes: 2, disputedMinor: 0n, paidMinor: 2242n });
  const notLanded = { ...WHOLE_REGISTER, landed: 'not-yet' } as const;
  expect((await registerOf(house.reader, notLanded, null)).rows).toEqual([]);
});

test('an answer is prepared, looked at and sent once, however often it is pressed; the bank decides', async () => {
  const { paymentId, called } = await sharedPayment();
  await paidOrder(workshop, called);
  const later = await paidOrder(workshop, called);
  await asSuperuser(workshop.admin, `update payments set settled_at = settled_at + interval '1 hour' where id = $1`, [
    later,
  ]);
  const { id, key } = await heard(later, 'not-received');
  const png = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  );
  const paper = await storeFile(house.owner, 'Доставка 送達.png', 'attachment', png);
  await prepareAnswer(house.clerk, id, {
    words: 'Handed over to her at the door. Übergabe am 1. März.',
    fileIds: [paper.id],
    leftOut: ['visits'],
  });
  const sheet = await disputeSheet(house.reader, id);
  expect(sheet.dispute.files).toEqual([{ id: paper.id, name: 'Доставка 送達.png' }]);
  expect(sheet.parts.find((part) => part.key === 'earlier')?.rows).toHaveLength(2);
  const now = await disputeFile(house.reader, id, false);
  const pages = (await PDFDocument.load(now.bytes)).getPageCount();
  expect(pages).toBeGreaterThan(2);
  await expect(disputeFile(house.reader, id, true)).rejects.toMatchObject({ code: 'not-found' });
  const answer = vi.spyOn(services().cards, 'answerDispute');
  const states = await Promise.all(Array.from({ length: 20 }, () => sendAnswer(house.owner, id)));
  expect(new Set(states)).toEqual(new Set(['sent']));
  expect(answer.mock.calls.every(([asked]) => asked === key)).toBe(true);
  expect((await PDFDocument.load((await disputeFile(house.reader, id, true)).bytes)).getPageCount()).toBe(pages);
  await expect(prepareAnswer(house.owner, id, { words: 'More', fileIds: [], leftOut: [] })).rejects.toMatchObject({
    code: 'dispute-closed',
  });
  await expect(acceptDispute(house.owner, id)).rejects.toMatchObject({ code: 'dispute-closed' });
  expect((await todayView(house.reader)).queue.filter(({ kind }) => kind === 'dispute')).toEqual([]);
  await decide(key, false);
  expect((await disputeSheet(house.reader, id)).dispute).toMatchObject({ state: 'lost', lostBy: 'decision' });
  expect([await balance('disputed'), await balance('dispute-losses'), await balance('dispute-fees')]).toEqual([
    0n,
    4400n,
    1500n,
  ]);
  const { timeline } = await paymentSheet(house.reader, later);
  expect(
    timeline
      .map(({ event }) => event.kind)
      .filter((kind) => kind.startsWith('disput'))
      .sort(),
  ).toEqual(['dispute-answered', 'dispute-lost', 'disputed']);
  await sound();
  // Another payment of the same offer is nobody's to give back twice, and can be refunded as before.
  await refundPayment(house.owner, paymentId, backOf(4400n));
  await sound();
});

test('the business may bear it alone; what was refunded before is not taken again; a won one can be refunded', async () => {
  await keepPayoutPolicy(house.owner, { when: { kind: 'daily' }, smallest: {}, disputes: 'business' });
  const { paymentId } = await sharedPayment();
  await refundPayment(house.owner, paymentId, backOf(1000n));
  const owed = await balance('partners');
  const { key, id } = await heard(paymentId);
  expect((await disputeSheet(house.reader, id)).dispute).toMatchObject({ amountMinor: 3400n, partners: [] });
  expect(await balance('partners')).toBe(owed);
  await decide(key, true);
  expect(await balance('dispute-fees')).toBe(0n);
  await refundPayment(house.owner, paymentId, backOf(3400n));
  expect(await balance('partners')).toBe(0n);
  await sound();
});

test.each([
  ['before', true, 1000n, 1545n],
  ['not before', false, 0n, 2000n],
])(
  'a refund of which nobody knows yet, made %s the dispute, is counted as the processor did',
  async (_, isMade, refunded, partners) => {
    const { paymentId } = await sharedPayment();
    const { cards } = services();
    const refund = cards.refund;
    vi.spyOn(cards, 'refund').mockImplementationOnce(async (...asked) => {
      if (isMade) await refund(...asked);
      return null;
    });
    expect(await refundPayment(house.owner, paymentId, backOf(1000n))).toBe('pending');
    const { id } = await heard(paymentId);
    const { dispute } = await disputeSheet(house.reader, id);
    expect(dispute.amountMinor).toBe(4400n - refunded);
    expect(dispute.partners.map(({ minor }) => BigInt(minor))).toEqual([partners]);
    const [row] = await asSuperuser<{ id: string }>(workshop.admin, 'select id from refunds where payment_id = $1', [
      paymentId,
    ]);
    expect(await settleRefund(house.business.id, row?.id ?? '')).toBe(isMade ? 'done' : 'refused');
    expect(await balance('partners')).toBe(0n);
    await sound();
  },
);

test('an invoice’s payment: nobody answers, the last day goes by, and it is lost; accepted it is lost at once', async () => {
  const pay = async () => {
    const { link, id } = await sentInvoice(house);
    const token = await cardToken(workshop.standIns, 'corvid-good');
    await takePayment(link, { attemptKey: randomUUID(), cardToken: token, amountMinor: 11_000n }, randomUUID());
    const [row] = await asSuperuser<{ id: string }>(workshop.admin, 'select id from payments where invoice_id = $1', [
      id,
    ]);
    return row?.id ?? '';
  };
  const silent = await heard(await pay());
  const accepted = await heard(await pay());
  const both = await Promise.allSettled([
    acceptDispute(house.owner, accepted.id),
    acceptDispute(house.owner, accepted.id),
  ]);
  expect(both.map(({ status }) => status)).toEqual(['fulfilled', 'fulfilled']);
  expect((await disputeSheet(house.reader, accepted.id)).dispute).toMatchObject({
    state: 'lost',
    lostBy: 'accepted',
    accepted: true,
  });
  await at(addDays(DAY, 15), '10:00');
  await expect(sendAnswer(house.owner, silent.id)).rejects.toMatchObject({ code: 'dispute-closed' });
  expect(await playMinute()).toEqual([]);
  expect((await disputeSheet(house.reader, silent.id)).dispute).toMatchObject({ state: 'lost', lostBy: 'silence' });
  await sound();
});

test('the processor’s event is enough; one that is not signed as it signs says nothing', async () => {
  const { paymentId } = await sharedPayment();
  await disputePayment(workshop, paymentId);
  const body = JSON.stringify({ event: 'dispute-changed', key: `${house.business.id}.${paymentId}`, sale: 'x' });
  const time = String(Math.floor(Date.now() / 1000));
  expect(await hearCardEvent({ body, time, signature: 'f'.repeat(64) })).toBe(false);
  expect((await disputeList(house.reader)).open).toEqual([]);
  const { eventSignature } = await import('../../../standins/cards/webhooks');
  const signature = eventSignature(services().webhookSecret, time, body);
  await Promise.all([1, 2, 3].map(() => hearCardEvent({ body, time, signature })));
  expect((await disputeList(house.reader)).open).toHaveLength(1);
  await sound();
});

test('many disputes go on page by page, each once', async () => {
  const { paymentId } = await sharedPayment();
  const { id, key } = await heard(paymentId);
  await decide(key, true);
  await asSuperuser(
    workshop.admin,
    `with copied as (
       insert into payments (id, business_id, order_id, customer_id, card_scheme, card_last4, channel, currency, amount_minor, state, attempt_key, sale_id, method, started_at, settled_at)
       select gen_random_uuid(), business_id, order_id, customer_id, card_scheme, card_last4, channel, currency, amount_minor, state, gen_random_uuid(), 'sale ' || n, method, started_at, settled_at
       from payments, generate_series(1, 60) as n where id = $1 returning id)
     insert into disputes select (jsonb_populate_record(d, jsonb_build_object('id', gen_random_uuid(), 'payment_id', copied.id,
         'key', copied.id))).* from disputes d, copied where d.id = $2`,
    [paymentId, id],
  );
  const first = await disputeList(house.reader);
  const seen = first.rows.map((row) => row.id);
  for (let next = first.next; next; ) {
    const page = await disputePage(house.reader, await checkedInput(DisputePageInput, { key: next.key, id: next.id }));
    seen.push(...page.rows.map((row) => row.id));
    next = page.next;
  }
  expect([seen.length, new Set(seen).size]).toEqual([61, 61]);
});

test('what the processor says badly of one dispute keeps nobody from hearing of the others', async () => {
  const { paymentId } = await sharedPayment();
  await disputePayment(workshop, paymentId);
  const { cards } = services();
  const [real] = (await cards.disputes(`${house.business.id}.`)) ?? [];
  if (!real) throw new Error('Not told');
  const of = (change: Partial<typeof real>) => ({ ...real, key: randomUUID(), ...change });
  vi.spyOn(cards, 'disputes').mockResolvedValueOnce([
    of({ paymentId: 'nobody' }),
    of({ paymentId: randomUUID() }),
    of({ amountMinor: 10n ** 12n }),
    of({ currency: 'EUR' }),
    real,
  ]);
  await look();
  expect((await disputeList(house.reader)).open.map(({ key }) => key)).toEqual([real.key]);
  await sound();
});

test('any payment’s papers are one zip, with names in any script', async () => {
  const { paymentId } = await sharedPayment();
  const { bytes, type } = await paymentFile(house.reader, paymentId);
  expect(type).toBe('application/zip');
  const names = await new Promise<string[]>((resolve, reject) =>
    yauzl.fromBuffer(bytes, { lazyEntries: false }, (error, zip) => {
      if (error) return reject(error);
      const found: string[] = [];
      zip.on('entry', ({ fileName }: { fileName: string }) => found.push(fileName));
      zip.on('end', () => resolve(found));
      zip.on('error', reject);
    }),
  );
  expect(names.sort()).toEqual(['Payment.pdf', expect.stringMatching(/^Receipt .*\.pdf$/), 'payment.json'].sort());
});

test('killed at any step of hearing and answering, a dispute is booked once and answered once', async () => {
  const chance = seeded(7);
  const { called } = await sharedPayment();
  const cards = services().cards;
  const outside = [{ of: cards, calls: ['disputes', 'answerDispute'] }];
  let kills = 0;
  for (let round = 0; round < 6; round++) {
    const paymentId = await paidOrder(workshop, called);
    await disputePayment(workshop, paymentId);
    for (let steps = 2; steps < 40; steps += 1 + Math.floor(chance() * 4))
      if (await underTheKnife(look, { steps, heard: chance() < 0.5, outside })) kills++;
    await look();
    const own = (await disputeList(house.owner)).open.find((one) => one.paymentId === paymentId);
    const answer = () =>
      round % 2 ? acceptDispute(house.owner, own?.id ?? '') : sendAnswer(house.owner, own?.id ?? '');
    for (let steps = 3; steps < 60; steps += 2 + Math.floor(chance() * 6))
      if (
        await underTheKnife(
          () =>
            answer().catch((error) => {
              if (error.code !== 'dispute-closed') throw error;
            }),
          { steps, heard: chance() < 0.5, outside },
        )
      )
        kills++;
    await answer().catch(() => undefined);
    expect(await playMinute()).toEqual([]);
    const { state } = (await disputeSheet(house.owner, own?.id ?? '')).dispute;
    expect(state).toBe(round % 2 ? 'lost' : 'sent');
    await sound();
  }
  expect(kills).toBeGreaterThan(40);
  const booked = await asSuperuser<{ cause: string }>(
    workshop.admin,
    `select cause from ledger_entries where business_id = $1 and cause like 'disput%'`,
    [house.business.id],
  );
  expect(new Set(booked.map(({ cause }) => cause)).size).toBe(booked.length);
  expect(booked.filter(({ cause }) => cause.startsWith('disputed:'))).toHaveLength(6);
});
