/** Giving back a payment of any kind, by lines, sums and wholes, with its papers, partners, stock and books. */
import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { beforeEach, expect, test } from 'vitest';

import { GOES_AS_USUAL, type Item } from '@/core/item/item';
import { newLine, type Paper } from '@/core/paper/paper';
import { WHOLE_REGISTER } from '@/core/register/ask';
import { creditsOf } from '@/db/credit-notes';
import { invoiceById } from '@/db/invoices';
import { accountBalances, ledgerTroubles } from '@/db/ledger';
import { queuedMessages } from '@/db/messages';
import { sharesOf } from '@/db/partners';
import { paymentById } from '@/db/payments';
import type { Db } from '@/db/pool';
import { refundsOf } from '@/db/refunds';
import { readBusiness } from '@/db/transaction';
import { closeDays } from '@/flows/day/close-days';
import { programContext } from '@/flows/door/program';
import { deskCreditXml } from '@/flows/file/kept-files';
import { creditInvoice } from '@/flows/invoice/credit-invoice';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { availableStock, keepItem } from '@/flows/records/items';
import { storePartner } from '@/flows/records/partners';
import { customerStatement } from '@/flows/records/statement';
import { registerOf, registerSums } from '@/flows/register/register';
import { asSuperuser } from '../../../tests/support/database';
import { paidOrder, placedOffer } from '../../../tests/support/offers';
import { watchedPlans } from '../../../tests/support/plan-house';
import { planTerms, runningPlan } from '../../../tests/support/plans';
import { back, backOf } from '../../../tests/support/refunds';
import {
  cardToken,
  foundHouse,
  type House,
  mailOf,
  plainPaper,
  sentInvoice,
  sharedWorkshop,
} from '../../../tests/support/workshop';
import { recordReceived } from './receive-payment';
import { refundPayment, settleRefund } from './refund-payment';
import { sendReceiptAgain } from './send-receipt';
import { takePayment } from './take-payment';

const workshop = await sharedWorkshop();
let house: House;
beforeEach(async () => {
  house = await foundHouse();
});

const of = <T>(work: (db: Db) => Promise<T>) => readBusiness(programContext(house.business.id), work);
const books = () => of(ledgerTroubles);
const invoiceOf = async (id: string) => {
  const invoice = await of((db) => invoiceById(db, id));
  if (!invoice) throw new Error('The invoice is gone');
  return invoice;
};
const paid = async (link: string, amountMinor: bigint, tipMinor = 0n) => {
  const attempt = {
    attemptKey: randomUUID(),
    cardToken: await cardToken(workshop.standIns, 'corvid-good'),
    amountMinor,
    tipMinor,
  };
  expect(await takePayment(link, attempt, '203.0.113.9')).toMatchObject({ state: 'paid' });
};
const onlyPayment = async (id: string) => (await invoiceSheet(house.owner, id)).payments[0]?.id ?? '';
const mailAll = async () => {
  for (const { id } of await of((db) => queuedMessages(db))) await handOverMessage(house.business.id, id);
};

const ROSIN: Omit<Item, 'id'> = {
  code: 'RO-2',
  name: 'Rosin, dark',
  description: '',
  kind: 'goods',
  unit: 'piece',
  prices: { USD: '9' },
  cost: '',
  taxClass: 'standard',
  onHand: '20',
  lowAt: null,
  pictureId: null,
  going: GOES_AS_USUAL,
  options: [],
};

/** Five lessons at 32.00 without tax, two rosins at 9.00 with 10 percent: 179.80; a tip may come on top. */
async function lessons(more: Partial<Paper> = {}) {
  const { id: itemId } = await keepItem(house.owner, null, { ...ROSIN, code: randomUUID().slice(0, 8) });
  const paper = plainPaper(house, {
    lines: [
      newLine(randomUUID(), 'piece', { what: 'Lesson', quantity: '5', price: '32', taxes: [], taxesBy: 'person' }),
      newLine(randomUUID(), 'piece', {
        what: 'Rosin, dark',
        quantity: '2',
        price: '9',
        taxes: [house.taxId],
        taxesBy: 'person',
        itemId,
      }),
    ],
    ways: { card: true, transfer: false, parts: true, first: '', tip: ['10'] },
    ...more,
  });
  return { itemId, ...(await sentInvoice(house, paper)) };
}

test('lines of an invoice go back: credit note line by line, e-invoice, stock, mail, register and statement say the same', async () => {
  const { id, link, itemId } = await lessons();
  await paid(link, 17_980n, 800n);
  expect(await availableStock(house.owner, [itemId])).toMatchObject({ [itemId]: '18' });
  const payment = await onlyPayment(id);
  const wish = {
    by: 'lines',
    lines: [
      { index: 0, quantity: '2' },
      { index: 1, quantity: '1' },
    ],
    tip: false,
  } as const;
  // 64.00 + 9.00 + 0.90 tax.
  await refundPayment(
    house.owner,
    payment,
    back(wish, { reason: 'Two fell out', aside: { toStock: [{ index: 1, quantity: '1' }] } }),
  );
  expect(await invoiceOf(id)).toMatchObject({ dueMinor: 0n, refundedMinor: 7390n, creditedMinor: 7390n });
  const [note] = await of((db) => creditsOf(db, id));
  expect(note?.printed).toMatchObject({
    amount: 7390,
    taxes: [{ name: 'Sales tax', amount: 90 }],
    part: {
      lines: [
        { quantity: '2', net: 6400 },
        { quantity: '1', net: 900 },
      ],
      taxTotal: 90,
      total: 7390,
    },
  });
  const xml = (await deskCreditXml(house.owner, note?.id ?? '')).bytes.toString();
  expect(xml).toContain('<cbc:CreditedQuantity unitCode="H87">2</cbc:CreditedQuantity>');
  expect(xml).toContain('>73.90</cbc:PayableAmount>');
  expect(await availableStock(house.owner, [itemId])).toMatchObject({ [itemId]: '19' });
  expect(await books()).toEqual([]);

  await mailAll();
  const mails = await mailOf(workshop.standIns, 'perpetua@vane.example');
  const told = mails.filter(({ text }) => text.includes('Two fell out'));
  expect(told).toHaveLength(1);
  expect(told[0]?.text).toContain('73.90');
  expect(told[0]?.attachments.map(({ filename }) => filename)).toEqual([`credit-note-${note?.number}.pdf`]);

  const { rows } = await registerOf(house.owner, { ...WHOLE_REGISTER, words: note?.number ?? '' }, null);
  expect(rows).toMatchObject([
    { kind: 'refund', amountMinor: 7390n, creditNumber: note?.number },
    { kind: 'payment', amountMinor: 18_780n, refundedMinor: 7390n },
  ]);
  const statement = await customerStatement(house.owner, house.customerId, { currency: 'USD', from: '', to: '' });
  expect(statement.closingMinor).toBe(0);
  expect(statement.lines.map(({ kind }) => kind)).toEqual(['invoice', 'credit-note', 'payment', 'refund']);

  // The rest, with the tip: nothing is left, of anything.
  await refundPayment(house.owner, payment, back({ by: 'all' }));
  for (const account of ['revenue', 'tax-payable', 'tips', 'receivable'] as const)
    expect(
      (await of((db) => accountBalances(db, account))).filter(({ minor }) => minor !== 0n),
      account,
    ).toEqual([]);
  expect(await books()).toEqual([]);
  expect(await registerSums(house.owner, WHOLE_REGISTER)).toEqual([
    { currency: 'USD', payments: 1, paidMinor: 18_780n, refunds: 2, refundedMinor: 18_780n },
  ]);
});

test('twenty presses at once, half of them the same: never more than was paid, the same press once, the books agree', async () => {
  const { id, link } = await lessons();
  await paid(link, 17_980n);
  const payment = await onlyPayment(id);
  const same = backOf(6000n);
  const presses = Array.from({ length: 20 }, (_, at) => (at % 2 === 0 ? same : backOf(6000n)));
  await Promise.allSettled(presses.map((press) => refundPayment(house.owner, payment, press)));
  const done = (await of((db) => refundsOf(db, payment))).filter(({ state }) => state === 'done');
  expect(done.length).toBeGreaterThan(0);
  expect(done.length).toBeLessThanOrEqual(2);
  const { refundedMinor } = await invoiceOf(id);
  expect(refundedMinor).toBe(BigInt(done.length) * 6000n);
  expect((await of((db) => paymentById(db, payment)))?.refundedMinor).toBe(refundedMinor);
  expect(await books()).toEqual([]);
  for (const { id: refundId } of done) await settleRefund(house.business.id, refundId);
  expect((await invoiceOf(id)).refundedMinor).toBe(refundedMinor);
});

test('cash goes back by hand; what is to be paid again is due again, and is paid again', async () => {
  const { id } = await lessons();
  const cash = {
    amountMinor: 17_980n,
    method: 'cash',
    reference: '',
    receivedOn: '',
    requestKey: randomUUID(),
  } as const;
  await recordReceived(house.owner, id, cash);
  const payment = await onlyPayment(id);
  await expect(refundPayment(house.owner, payment, backOf(100n))).rejects.toMatchObject({ code: 'not-by-card' });
  await refundPayment(house.owner, payment, backOf(980n, { method: 'cash', owedAgain: true }));
  expect(await invoiceOf(id)).toMatchObject({ dueMinor: 980n, creditedMinor: 0n });
  expect((await of((db) => accountBalances(db, 'cash')))[0]?.minor).toBe(17_000n);
  await expect(
    refundPayment(
      house.owner,
      payment,
      back({ by: 'lines', lines: [{ index: 0, quantity: '1' }], tip: false }, { method: 'cash' }),
    ),
  ).rejects.toMatchObject({ code: 'lines-not-settled' });
  await recordReceived(house.owner, id, { ...cash, amountMinor: 980n, requestKey: randomUUID() });
  expect(await invoiceOf(id)).toMatchObject({ dueMinor: 0n });
  expect(await books()).toEqual([]);
});

test('what is to the customer’s credit goes back without another credit note', async () => {
  const { id, link } = await lessons();
  await paid(link, 17_980n);
  await creditInvoice(house.owner, id, { amountMinor: 1500n, reason: 'Late', tell: false, requestKey: randomUUID() });
  await refundPayment(house.owner, await onlyPayment(id), backOf(2000n));
  expect(await invoiceOf(id)).toMatchObject({ dueMinor: 0n, creditedMinor: 2000n, refundedMinor: 2000n });
  expect((await of((db) => creditsOf(db, id))).map(({ amountMinor }) => amountMinor)).toEqual([1500n, 500n]);
  await expect(
    refundPayment(
      house.owner,
      await onlyPayment(id),
      back({ by: 'lines', lines: [{ index: 0, quantity: '1' }], tip: false }),
    ),
  ).rejects.toMatchObject({ code: 'credited-by-lines' });
  expect(await books()).toEqual([]);
});

test('a void of an invoice’s card payment gives the fee back, and only before its day is closed', async () => {
  const first = await lessons();
  await paid(first.link, 17_980n, 200n);
  await refundPayment(house.owner, await onlyPayment(first.id), back({ by: 'void' }, { owedAgain: true }));
  expect(await invoiceOf(first.id)).toMatchObject({ dueMinor: 17_980n, settledAt: null });
  for (const account of ['processor-clearing', 'processing-fees', 'tips'] as const)
    expect(
      (await of((db) => accountBalances(db, account))).filter(({ minor }) => minor !== 0n),
      account,
    ).toEqual([]);
  const second = await lessons();
  await paid(second.link, 17_980n);
  await closeDays(programContext(house.business.id, new Date(Date.now() + 2 * 86_400_000)));
  const payment = await onlyPayment(second.id);
  await expect(refundPayment(house.owner, payment, back({ by: 'void' }))).rejects.toMatchObject({
    code: 'void-too-late',
  });
  await refundPayment(house.owner, payment, back({ by: 'all' }));
  expect(await books()).toEqual([]);
});

test('goods of an order go back with delivery and the partner’s part; the tip stays', async () => {
  const partner = await storePartner(house.owner, null, { name: 'Ada Teacher', email: '' });
  const { called } = await placedOffer(house, {
    prices: { USD: '40' },
    tip: ['10'],
    split: { partners: [{ partnerId: partner.id, percent: '50' }], keep: '', feeFrom: 'business' },
  });
  // 44.00 with 4.00 tax, and a tip of 4.40.
  const payment = await paidOrder(workshop, called, { tip: '10%' });
  await refundPayment(house.owner, payment, back({ by: 'lines', lines: [{ index: 0, quantity: '1' }], tip: false }));
  expect(await of((db) => paymentById(db, payment))).toMatchObject({ refundedMinor: 4400n, tipMinor: 440n });
  const [share] = await of((db) => sharesOf(db, payment));
  expect(share?.reversedMinor).toBe(share?.shareMinor);
  expect((await of((db) => accountBalances(db, 'tips')))[0]?.minor).toBe(-440n);
  await refundPayment(house.owner, payment, back({ by: 'lines', lines: [], tip: true }));
  expect((await of((db) => accountBalances(db, 'tips')))[0]?.minor).toBe(0n);
  expect(await books()).toEqual([]);
});

test('a receipt of an invoice’s payment is sent again, elsewhere and under an own reference', async () => {
  const { id, link } = await lessons();
  await paid(link, 17_980n);
  const again = { to: 'books@vane.example', reference: 'R-77', requestKey: randomUUID() };
  for (const _ of [1, 2]) await sendReceiptAgain(house.clerk, await onlyPayment(id), again);
  await mailAll();
  expect(await mailOf(workshop.standIns, 'books@vane.example')).toHaveLength(1);
});

type Deed = { readonly kind: 'pay' | 'cash' | 'back' | 'line' | 'owed' | 'credit' | 'all'; readonly size: number };

test('whatever is paid, given back, credited and owed again, in any order: the books agree and nobody gets more than they paid', async () => {
  const deeds = fc.array(
    fc.record<Deed>({
      kind: fc.constantFrom('pay', 'cash', 'back', 'line', 'owed', 'credit', 'all'),
      size: fc.integer({ min: 1, max: 100 }),
    }),
    { minLength: 3, maxLength: 9 },
  );
  const run = async (id: string, link: string, { kind, size }: Deed) => {
    const invoice = await invoiceOf(id);
    const part = (whole: bigint) => (whole * BigInt(size)) / 100n || 1n;
    const { payments } = await invoiceSheet(house.owner, id);
    const chosen = payments[size % Math.max(1, payments.length)];
    const method = chosen?.method ?? 'card';
    if (kind === 'pay' && invoice.dueMinor > 0n) return paid(link, part(invoice.dueMinor), BigInt(size % 3));
    if (kind === 'cash')
      return recordReceived(house.owner, id, {
        amountMinor: part(invoice.dueMinor),
        method: 'cash',
        reference: '',
        receivedOn: '',
        requestKey: randomUUID(),
      });
    if (kind === 'credit')
      return creditInvoice(house.owner, id, {
        amountMinor: part(5000n),
        reason: 'x',
        tell: false,
        requestKey: randomUUID(),
      });
    if (!chosen) return;
    const wishes = {
      back: backOf(part(chosen.amountMinor), { method }),
      owed: backOf(part(chosen.amountMinor), { method, owedAgain: true }),
      all: back({ by: 'all' }, { method }),
      line: back({ by: 'lines', lines: [{ index: size % 2, quantity: '1' }], tip: size % 5 === 0 }, { method }),
    };
    if (kind !== 'pay') await refundPayment(house.owner, chosen.id, wishes[kind]);
  };
  await fc.assert(
    fc.asyncProperty(deeds, async (list) => {
      const { id, link } = await lessons();
      for (const deed of list) await run(id, link, deed).catch((error) => expect(error).toHaveProperty('code'));
      expect(await books()).toEqual([]);
      const { paidMinor, refundedMinor, creditedMinor, totalMinor } = await invoiceOf(id);
      expect(refundedMinor <= paidMinor && creditedMinor <= totalMinor).toBe(true);
    }),
    { numRuns: 14 },
  );
}, 240_000);

// The last one: it moves the clock.
test('a charge of a plan goes back with its part for the partner, and the plan ends where that is wanted', async () => {
  const watched = watchedPlans(workshop, house);
  await watched.clock('2027-03-01', '12:00');
  const { id: planId } = await runningPlan(house, workshop.standIns, planTerms(house, '2027-03-05'));
  await watched.clock('2027-03-05');
  await watched.due();
  const [row] = await asSuperuser<{ id: string; invoice_id: string }>(
    workshop.admin,
    `select id, invoice_id from payments where business_id = $1 and charge_id is not null and state = 'paid'`,
    [house.business.id],
  );
  await refundPayment(house.owner, row?.id ?? '', back({ by: 'all' }, { aside: { endPlan: true } }));
  expect(await watched.plan(planId)).toMatchObject({ state: 'cancelled' });
  expect(await invoiceOf(row?.invoice_id ?? '')).toMatchObject({ dueMinor: 0n, creditedMinor: 2200n });
  expect(await books()).toEqual([]);
});
