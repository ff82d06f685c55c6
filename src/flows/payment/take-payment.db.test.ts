import { randomUUID } from 'node:crypto';
import { beforeEach, expect, test } from 'vitest';
import { USUAL_WAYS } from '@/core/paper/paper';
import { invoiceById } from '@/db/invoices';
import { accountBalances, ledgerTroubles } from '@/db/ledger';
import { pendingPayment } from '@/db/payments';
import { timelineOf } from '@/db/timeline';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { viewByLink } from '@/flows/invoice/payer-page';
import { asSuperuser } from '../../../tests/support/database';
import { until } from '../../../tests/support/until';
import {
  cardToken,
  foundHouse,
  type House,
  plainPaper,
  sentInvoice,
  sharedWorkshop,
} from '../../../tests/support/workshop';
import { paymentStatus, returnFromBank, settlePayments, withdrawAttempt } from './settle-payment';
import { takePayment } from './take-payment';

const workshop = await sharedWorkshop();
let house: House;
beforeEach(async () => {
  house = await foundHouse();
});

const attempt = async (card: string, amountMinor = 11_000n) => ({
  attemptKey: randomUUID(),
  cardToken: await cardToken(workshop.standIns, card),
  amountMinor,
});
const pay = async (link: string, card: string) => takePayment(link, await attempt(card), randomUUID());
const read = async (id: string) => {
  const { id: business } = house.business;
  return readBusiness(programContext(business), async (db) => ({
    invoice: await invoiceById(db, id),
    happened: (await timelineOf(db, id)).map(({ event }) => event.kind),
    pending: await pendingPayment(db, id),
    troubles: await ledgerTroubles(db),
  }));
};
const book = async () => {
  const answer = await fetch(`${workshop.standIns}/cards/api/book`, { headers: { authorization: 'Bearer test-key' } });
  const { sales } = (await answer.json()) as { sales: { key: string; status: string; amount: number }[] };
  return sales.filter(({ key }) => key.startsWith(house.business.id));
};

test('an accepted card settles the invoice, books it twice and gives a receipt', async () => {
  const { id, link } = await sentInvoice(house);
  expect(await pay(link, 'corvid-good')).toEqual({ state: 'paid', receipt: '1' });
  const { invoice, happened, troubles } = await read(id);
  expect(invoice).toMatchObject({ paidMinor: 11_000n, dueMinor: 0n });
  expect(happened.slice(0, 1)).toEqual(['paid']);
  expect(troubles).toEqual([]);
  // 110.00 less the fee of 2.9 percent (3.19) and 0.30: 106.51 at the processor.
  const balances = await readBusiness(programContext(house.business.id), async (db) => ({
    clearing: await accountBalances(db, 'processor-clearing'),
    fees: await accountBalances(db, 'processing-fees'),
    receivable: await accountBalances(db, 'receivable'),
    revenue: await accountBalances(db, 'revenue'),
    tax: await accountBalances(db, 'tax-payable'),
  }));
  expect(Object.fromEntries(Object.entries(balances).map(([account, [sum]]) => [account, sum?.minor]))).toEqual({
    clearing: 10_651n,
    fees: 349n,
    receivable: 0n,
    revenue: -10_000n,
    tax: -1_000n,
  });
});

test('a refused card says why, leaves the invoice open, and another card may follow', async () => {
  const { id, link } = await sentInvoice(house);
  expect(await pay(link, 'corvid-poor')).toMatchObject({
    state: 'refused',
    words: expect.stringContaining('not enough money'),
  });
  expect((await read(id)).invoice).toMatchObject({ dueMinor: 11_000n });
  expect(await pay(link, 'lumen-good')).toMatchObject({ state: 'paid' });
});

test('the same press sent twice is one attempt, with one answer', async () => {
  const { link } = await sentInvoice(house);
  const once = await attempt('corvid-good');
  const answers = await Promise.all([takePayment(link, once, 'a'), takePayment(link, once, 'a')]);
  expect(answers.some(({ state }) => state === 'paid')).toBe(true);
  expect(await takePayment(link, once, 'a')).toMatchObject({ state: 'paid' });
  expect((await book()).length).toBe(1);
});

test('eight tabs at once with eight cards: one is charged', async () => {
  const { id, link } = await sentInvoice(house);
  const attempts = await Promise.all(Array.from({ length: 8 }, () => attempt('corvid-good')));
  const answers = await Promise.allSettled(attempts.map((one) => takePayment(link, one, randomUUID())));
  for (const answer of answers) {
    // Paid, being checked, or told that it is already paid: never charged a second time.
    if (answer.status === 'rejected') expect(answer.reason).toMatchObject({ code: 'already-paid' });
    else expect(['paid', 'checking']).toContain(answer.value.state);
  }
  expect((await book()).filter(({ status }) => status === 'accepted').length).toBe(1);
  const { invoice, troubles } = await read(id);
  expect(invoice).toMatchObject({ paidMinor: 11_000n });
  expect(troubles).toEqual([]);
});

/** Asks the processor, as the worker does, until it knows. */
const untilSettled = (id = '') =>
  until('the processor knows', async () => {
    await settlePayments(house.business.id, [id]);
    return (
      (await asSuperuser(workshop.admin, `select 1 from payments where id = $1 and state <> 'pending'`, [id])).length >
      0
    );
  });

test('a processor that does not answer in time leads to checking, and is settled by asking', async () => {
  const { id, link } = await sentInvoice(house);
  const late = await attempt('corvid-late');
  expect(await takePayment(link, late, randomUUID())).toEqual({ state: 'checking' });
  const open = await read(id);
  expect(open.happened[0]).toBe('checking');
  // While it is open no other card is charged.
  expect(await pay(link, 'lumen-good')).toEqual({ state: 'checking' });
  await untilSettled(open.pending?.id);
  expect(await paymentStatus(link, late.attemptKey)).toMatchObject({ state: 'paid' });
  expect((await book()).length).toBe(1);
});

test('a late refusal frees the invoice again', async () => {
  const { id, link } = await sentInvoice(house);
  expect(await pay(link, 'lumen-late')).toEqual({ state: 'checking' });
  const { pending } = await read(id);
  await untilSettled(pending?.id);
  expect((await read(id)).happened[0]).toBe('refused');
  expect(await pay(link, 'corvid-good')).toMatchObject({ state: 'paid' });
});

test('a request that never reached the processor is closed there before it is called refused', async () => {
  const { id, link } = await sentInvoice(house);
  // As after a crash between writing the attempt down and sending it: the row is there, the processor knows nothing.
  await asSuperuser(
    workshop.admin,
    `insert into payments (id, business_id, invoice_id, customer_id, channel, currency, amount_minor, state, attempt_key, started_at)
     values ($1, $2, $3, $4, 'invoice', 'USD', 11000, 'pending', 'lost', now())`,
    [randomUUID(), house.business.id, id, house.customerId],
  );
  const { pending } = await read(id);
  await settlePayments(house.business.id, [pending?.id ?? '']);
  expect((await read(id)).happened[0]).toBe('refused');
  // The request arrives after all: the key is closed, so nothing is charged.
  const late = await fetch(`${workshop.standIns}/cards/api/sales`, {
    method: 'POST',
    headers: { authorization: 'Bearer test-key', 'content-type': 'application/json' },
    body: JSON.stringify({
      key: `${house.business.id}.${pending?.id}`,
      amount: 11_000,
      currency: 'USD',
      reference: '',
      returnUrl: '',
      token: await cardToken(workshop.standIns, 'corvid-good'),
    }),
  });
  expect(await late.json()).toMatchObject({ status: 'refused', reason: 'never-charged' });
  expect(await pay(link, 'corvid-good')).toMatchObject({ state: 'paid' });
});

test('the holder’s approval is asked at the bank, and the answer found on coming back', async () => {
  const { id, link } = await sentInvoice(house);
  const status = await pay(link, 'lumen-approval');
  if (status.state !== 'approval') throw new Error(`Expected an approval, got ${status.state}`);
  await fetch(status.url, { method: 'POST', body: new URLSearchParams({ answer: 'approve' }), redirect: 'manual' });
  await returnFromBank(link);
  expect((await read(id)).happened.slice(0, 2)).toEqual(['paid', 'approval-asked']);
});

test('an approval declined is a refusal; one withdrawn frees the invoice for another card', async () => {
  const { id, link } = await sentInvoice(house);
  const first = await pay(link, 'lumen-approval');
  if (first.state !== 'approval') throw new Error(`Expected an approval, got ${first.state}`);
  await fetch(first.url, { method: 'POST', body: new URLSearchParams({ answer: 'decline' }), redirect: 'manual' });
  await returnFromBank(link);
  expect((await read(id)).happened[0]).toBe('refused');

  const second = await pay(link, 'lumen-approval');
  if (second.state !== 'approval') throw new Error(`Expected an approval, got ${second.state}`);
  expect(await withdrawAttempt(link)).toMatchObject({ state: 'refused' });
  expect(await pay(link, 'corvid-good')).toMatchObject({ state: 'paid' });
  // Approving what was withdrawn changes nothing.
  await fetch(second.url, { method: 'POST', body: new URLSearchParams({ answer: 'approve' }), redirect: 'manual' });
  expect((await book()).filter(({ status }) => status === 'accepted').length).toBe(1);
});

test('parts that wait for the bank are under way and not paid, each until its own answer; one is taken back without the others', async () => {
  const paper = plainPaper(house, { ways: { ...USUAL_WAYS, parts: true } });
  const { id, link } = await sentInvoice(house, paper);
  const part = async (amountMinor: bigint) => {
    const tried = await attempt('lumen-approval', amountMinor);
    const status = await takePayment(link, tried, randomUUID());
    if (status.state !== 'approval') throw new Error(`Expected an approval, got ${status.state}`);
    return { key: tried.attemptKey, url: status.url };
  };
  const [mine, theirs] = [await part(5000n), await part(2000n)];
  const seen = async () => {
    const view = await viewByLink(link);
    return {
      due: view?.dueMinor,
      paid: view?.paidMinor,
      underWay: view?.underWay.map(({ amountMinor }) => amountMinor),
    };
  };
  expect(await seen()).toEqual({ due: 11_000n, paid: 0n, underWay: [5000, 2000] });
  expect((await invoiceSheet(house.owner, id)).pending?.amountMinor).toBe(5000n);
  expect(await withdrawAttempt(link, theirs.key)).toMatchObject({ state: 'refused' });
  expect(await seen()).toEqual({ due: 11_000n, paid: 0n, underWay: [5000] });
  await fetch(mine.url, { method: 'POST', body: new URLSearchParams({ answer: 'approve' }), redirect: 'manual' });
  await returnFromBank(link);
  expect(await seen()).toEqual({ due: 6000n, paid: 5000n, underWay: [] });
  expect(await paymentStatus(link, mine.key)).toEqual({ state: 'paid', receipt: '1' });
  // All that is left, waiting: nothing can be paid beside it, and it is not called paid.
  await part(6000n);
  expect(await seen()).toEqual({ due: 6000n, paid: 5000n, underWay: [6000] });
  await expect(takePayment(link, await attempt('corvid-good', 6000n), 'a')).rejects.toMatchObject({
    code: 'payment-under-way',
  });
});

test('another sum than the one due is not taken, nor anything twice', async () => {
  const { link } = await sentInvoice(house);
  await expect(takePayment(link, await attempt('corvid-good', 10_999n), 'a')).rejects.toMatchObject({
    code: 'amount-changed',
  });
  await pay(link, 'corvid-good');
  await expect(pay(link, 'lumen-good')).rejects.toMatchObject({ code: 'already-paid' });
  expect((await book()).length).toBe(1);
});

test('too many cards from one address, or for one invoice, are stopped before the processor hears of them', async () => {
  const { link } = await sentInvoice(house);
  const refusals = [];
  for (let tries = 0; tries < 14; tries++) {
    refusals.push(
      await pay(link, 'corvid-poor').then(
        (status) => status.state,
        (error) => error.code,
      ),
    );
  }
  expect(refusals.filter((state) => state === 'refused').length).toBe(12);
  expect(refusals.slice(12)).toEqual(['too-many-attempts', 'too-many-attempts']);
  expect((await book()).length).toBe(12);
});

test('a link that was never given opens nothing', async () => {
  await expect(pay('x'.repeat(32), 'corvid-good')).rejects.toMatchObject({ code: 'not-found' });
});
