import { randomUUID } from 'node:crypto';
import { beforeEach, expect, test } from 'vitest';
import type { Choice } from '@/core/offer/choice';
import type { Offer, Placement } from '@/core/offer/offer';
import { newBlock } from '@/core/page/page';
import { customerByEmail } from '@/db/customers';
import { accountBalances, ledgerTroubles } from '@/db/ledger';
import { offerRow } from '@/db/offers';
import { sharesOf } from '@/db/partners';
import { paymentById } from '@/db/payments';
import type { Db } from '@/db/pool';
import { receiptOfPayment } from '@/db/receipts';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { storeCode } from '@/flows/offer/codes';
import { keepOffer, offerSheet } from '@/flows/offer/offers';
import { refundPayment, settleRefund } from '@/flows/payment/refund-payment';
import { sendReceiptAgain } from '@/flows/payment/send-receipt';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { donors, giftLetter, giftYears, mailGiftLetters } from '@/flows/records/gifts';
import { storePartner } from '@/flows/records/partners';
import { asSuperuser } from '../../../tests/support/database';
import { paidOrder, placedOffer } from '../../../tests/support/offers';
import { back, backOf } from '../../../tests/support/refunds';
import { foundHouse, type House, mailOf, sharedWorkshop } from '../../../tests/support/workshop';
import { hostedPage, keepPage, pageDesign, pagePicture, publishHostedPage, restorePage } from './hosted-page';
import { signedRedirect } from './order-page';

const workshop = await sharedWorkshop();
let house: House;
beforeEach(async () => {
  house = await foundHouse();
});

const VISITOR = { acceptLanguage: 'en-US', lang: '', currency: '' };
const of = <T>(work: (db: Db) => Promise<T>) => readBusiness(programContext(house.business.id), work);

const placed = (more: Partial<Offer>, placement?: Placement) => placedOffer(house, more, placement);
const paid = (called: string, more?: Partial<Choice>, card?: string) => paidOrder(workshop, called, more, card);

/** Hands over what is queued of a kind, as the worker would. */
async function handOverAll(kind: string): Promise<void> {
  const rows = await asSuperuser<{ id: string }>(
    workshop.admin,
    `select id from messages where business_id = $1 and kind = $2 and state = 'queued'`,
    [house.business.id, kind],
  );
  for (const { id } of rows) await handOverMessage(house.business.id, id);
}

test('giving back in steps takes back tax, tip and shares exactly, and the books end at what was kept', async () => {
  const partner = await storePartner(house.owner, null, { name: 'Ada Teacher', email: '' });
  const { id, called } = await placed({
    prices: { USD: '40' },
    tip: ['10'],
    split: { partners: [{ partnerId: partner.id, percent: '33.33' }], keep: '', feeFrom: 'all' },
  });
  // 44.00 and a tip of 4.40: 48.40.
  const payment = await paid(called, { tip: '10%' });
  for (const amount of [1001n, 7n, 2000n]) await refundPayment(house.owner, payment, backOf(amount));
  expect(await of(ledgerTroubles)).toEqual([]);
  await refundPayment(house.owner, payment, backOf(4840n - 3008n));
  expect(await of(ledgerTroubles)).toEqual([]);
  for (const account of ['revenue', 'tax-payable', 'tips', 'partner-shares'] as const)
    expect(
      (await of((db) => accountBalances(db, account))).filter(({ minor }) => minor !== 0n),
      account,
    ).toEqual([]);
  const [share] = await of((db) => sharesOf(db, payment));
  expect(share?.reversedMinor).toBe(share?.shareMinor);
  expect((await of((db) => offerRow(db, id)))?.sums[0]).toMatchObject({
    paidMinor: 4400,
    refundedMinor: 4400,
  });
  await expect(refundPayment(house.owner, payment, backOf(1n))).rejects.toMatchObject({
    code: 'refund-too-large',
  });
});

test('one press gives back once, however often it is sent or asked about; another house cannot', async () => {
  const { called } = await placed({ prices: { USD: '40' } });
  const payment = await paid(called);
  const wish = backOf(1000n);
  await Promise.all([1, 2, 3].map(() => refundPayment(house.owner, payment, wish)));
  const [refund] = await asSuperuser<{ id: string }>(workshop.admin, 'select id from refunds where payment_id = $1', [
    payment,
  ]);
  await settleRefund(house.business.id, refund?.id ?? '');
  expect((await of((db) => paymentById(db, payment)))?.refundedMinor).toBe(1000n);
  await expect(refundPayment(house.owner, payment, back({ by: 'void' }))).rejects.toMatchObject({
    code: 'refund-too-large',
  });
  await expect(refundPayment(house.reader, payment, backOf(1n))).rejects.toMatchObject({ code: 'not-allowed' });
  const others = await foundHouse('Other House');
  await expect(refundPayment(others.owner, payment, backOf(1n))).rejects.toMatchObject({ code: 'not-found' });
});

test('a void takes all back with the fee, as if it had not been', async () => {
  const { called } = await placed({ prices: { USD: '40' } });
  const payment = await paid(called);
  await refundPayment(house.owner, payment, back({ by: 'void' }));
  expect(await of((db) => paymentById(db, payment))).toMatchObject({ state: 'voided' });
  for (const account of ['processor-clearing', 'processing-fees', 'revenue'] as const)
    expect(
      (await of((db) => accountBalances(db, account))).map(({ minor }) => minor),
      account,
    ).toEqual([0n]);
});

test('a year’s gifts are one letter; what was given back is not in it, nor what was bought', async () => {
  const gift = await placed({ kind: 'donation', ownAmount: true });
  const sale = await placed({ prices: { USD: '40' } });
  await paid(gift.called, { amount: '25' });
  const returned = await paid(gift.called, { amount: '60' });
  await paid(gift.called, { amount: '10.50' });
  await paid(sale.called);
  await refundPayment(house.owner, returned, backOf(6000n));
  const customer = await of((db) => customerByEmail(db, 'ida@marsh.example'));
  const [year, ...more] = await giftYears(house.owner, customer?.id ?? '');
  // 25.00 and 10.50.
  expect(year).toMatchObject({ currency: 'USD', minor: 3550n, count: 2 });
  expect(more).toEqual([]);
  const file = await giftLetter(house.owner, customer?.id ?? '', year?.year ?? 0, 'USD');
  expect(file.bytes.subarray(0, 5).toString()).toBe('%PDF-');
  await expect(giftLetter(house.owner, customer?.id ?? '', 1999, 'USD')).rejects.toMatchObject({ code: 'not-found' });
});

test('visitors see what was published, not what is edited; a version is taken up again', async () => {
  const { id, called } = await placed({ kind: 'donation' }, 'page');
  expect(await hostedPage(called, VISITOR)).toBeNull();
  await publishHostedPage(house.owner, id);
  expect(await hostedPage(called, VISITOR)).toContain('<h1>Bench days</h1>');
  const blocks = [newBlock(randomUUID(), 'heading', { text: 'Second words' }), newBlock(randomUUID(), 'offer')];
  await keepPage(house.owner, id, { blocks });
  expect(await hostedPage(called, VISITOR)).not.toContain('Second words');
  await publishHostedPage(house.owner, id);
  expect(await hostedPage(called, VISITOR)).toContain('<h1>Second words</h1>');
  await restorePage(house.owner, id, 1);
  const { page, versions } = await pageDesign(house.owner, id);
  expect(page.blocks.find(({ kind }) => kind === 'heading')?.text).toBe('Bench days');
  expect(versions.map(({ version }) => version)).toEqual([2, 1]);
  // Read in another language and currency, the form and its prices are too; what is chosen goes on to the checkout.
  const french = await hostedPage(called, { ...VISITOR, lang: 'fr', currency: 'EUR' });
  expect(french).toContain('<html lang="fr">');
  expect(french).toContain('<input type="hidden" name="lang" value="fr">');
  // The offer's composer leaves the page alone.
  const { placed: now } = await offerSheet(house.owner, id);
  await keepOffer(house.owner, id, now.revision, { ...now, look: { blocks: [] } });
  expect((await pageDesign(house.owner, id)).page.blocks.length).toBeGreaterThan(0);
  // No file but those on the page is served through it.
  await expect(pagePicture(called, randomUUID())).rejects.toMatchObject({ code: 'not-found' });
  const others = await foundHouse('Other House');
  await expect(publishHostedPage(others.owner, id)).rejects.toMatchObject({ code: 'not-found' });
  await expect(keepPage(others.owner, id, { blocks })).rejects.toMatchObject({ code: 'not-found' });
});

test('the way back to the business’s website is signed, and keeps what was in its address', () => {
  const address = signedRedirect(
    'https://shop.example/thanks?from=us',
    { reference: 'AB12-CD34', amountMinor: 4400n, currency: 'USD', passed: { campaign: 'spring' } },
    'secret',
  );
  // HMAC-SHA256 of AB12-CD34.4400.USD under "secret", worked out with openssl.
  const url = new URL(address);
  expect(Object.fromEntries(url.searchParams)).toMatchObject({
    from: 'us',
    campaign: 'spring',
    reference: 'AB12-CD34',
    amount: '4400',
    currency: 'USD',
    signature: '126257d3a0422ec1f8e598741f74d7fb710eb8bb75eb9c6d0a9e1ece0c7b066a',
  });
});

test('all donors of a year get their letters by mail, each once a press', async () => {
  const gift = await placed({ kind: 'donation', ownAmount: true });
  await paid(gift.called, { amount: '25' });
  await paid(gift.called, { amount: '5', email: 'nils@fen.example', name: 'Nils Fen' });
  const year = new Date().getUTCFullYear();
  const [ida, nils, ...more] = await donors(house.owner, year);
  expect([ida?.minor, nils?.minor, ida?.sentAt, more.length]).toEqual([2500n, 500n, null, 0]);
  const ids = [ida?.customerId ?? '', nils?.customerId ?? ''];
  const press = randomUUID();
  expect(await mailGiftLetters(house.owner, year, ids, press)).toBe(2);
  expect(await mailGiftLetters(house.owner, year, ids, press)).toBe(0);
  await expect(mailGiftLetters(house.reader, year, ids, press)).rejects.toMatchObject({ code: 'not-allowed' });
  await handOverAll('gift-letter');
  const [mail] = await mailOf(workshop.standIns, 'nils@fen.example');
  expect(mail).toMatchObject({ attachments: [{ filename: `gifts-${year}.pdf`, contentType: 'application/pdf' }] });
  expect(mail?.text).toContain('$5.00');
  expect((await donors(house.owner, year)).every(({ sentAt }) => sentAt !== null)).toBe(true);
  expect(await donors(house.owner, year - 1)).toEqual([]);
});

test('what a code makes free needs no card: ordered, receipted, counted, and nothing is booked', async () => {
  const code = { code: 'GUEST', note: '', percent: '100', amountMinor: null, currency: 'USD', from: '', to: '' };
  await storeCode(house.owner, null, { ...code, leastMinor: 0n, mostUses: 1, mostEach: null, itemIds: [] });
  const { id, called } = await placed({ prices: { USD: '40' }, codes: true });
  const payment = await paid(called, { code: 'guest' }, '');
  expect(await of((db) => paymentById(db, payment))).toMatchObject({
    state: 'paid',
    amountMinor: 0n,
    cardLast4: null,
  });
  expect((await of((db) => offerRow(db, id)))?.sums[0]).toMatchObject({ orders: 1, paidMinor: 0 });
  expect(await of((db) => accountBalances(db, 'revenue'))).toEqual([]);
  const receipt = await of((db) => receiptOfPayment(db, payment));
  expect(receipt).toMatchObject({ number: '1', printed: { method: 'a discount code', amount: 0 } });
  // Its one use is spent.
  await expect(paid(called, { code: 'guest', email: 'nils@fen.example' }, '')).rejects.toMatchObject({
    code: 'order-not-ready',
  });
  // Without the code there is something to pay, and no card is no way to pay it.
  const cardless = await paid(called, {}, '');
  expect(await of((db) => paymentById(db, cardless))).toMatchObject({
    state: 'refused',
    reason: 'never-charged',
  });
});

test('a receipt sent by hand takes a reference of the business’s own, and is a new version then', async () => {
  const { called } = await placed({ prices: { USD: '40' }, receipt: 'hand' });
  const payment = await paid(called);
  const kept = () => of((db) => receiptOfPayment(db, payment));
  const again = () => ({ to: 'ida@marsh.example', reference: 'BOOK 7/112', requestKey: randomUUID() });
  await sendReceiptAgain(house.owner, payment, again());
  expect((await kept())?.printed).toMatchObject({ ownReference: 'BOOK 7/112', version: 2 });
  await sendReceiptAgain(house.owner, payment, again());
  expect((await kept())?.printed.version).toBe(2);
  await handOverAll('receipt');
  const [mail] = await mailOf(workshop.standIns, 'ida@marsh.example');
  expect(mail?.text).toContain('Our reference: BOOK 7/112');
});

test('a payment that is repeated begins a plan: the first is the order’s, the card is kept, the next comes a month later', async () => {
  const { called } = await placed({
    prices: { USD: '40' },
    repeat: { rhythms: [{ unit: 'month', every: 1 }], once: true, count: 6 },
  });
  const email = 'again@marsh.example';
  await expect(paid(called, { repeat: 'month:1', email })).rejects.toMatchObject({ code: 'order-not-ready' });
  await expect(paid(called, { repeat: 'year:1', agrees: true, email })).rejects.toMatchObject({
    code: 'order-not-ready',
  });
  await paid(called, { repeat: 'month:1', agrees: true, email }, 'corvid-poor');
  expect(await plansOf(email)).toEqual([]);
  await paid(called, { email });
  expect(await plansOf(email)).toEqual([]);
  await paid(called, { repeat: 'month:1', agrees: true, email }, 'lumen-good');
  const [plan] = await plansOf(email);
  expect(plan).toMatchObject({
    state: 'active',
    pay: 'card',
    planned_count: 5,
    how: 'ticked',
    last4: expect.any(String),
  });
  expect(plan?.next_on).not.toBe(plan?.starts_on);
  // 40.00 and 10 percent tax, five times more.
  expect(plan?.planned_minor).toBe('22000');
  expect(await of(ledgerTroubles)).toEqual([]);
});

/** The plans of whoever has this address, with their card and authorisation. */
const plansOf = (email: string) =>
  asSuperuser<Record<string, string>>(
    workshop.admin,
    `select plans.state, plans.pay, planned_count, planned_minor, to_char(next_on, 'YYYY-MM-DD') as next_on,
       to_char(starts_on, 'YYYY-MM-DD') as starts_on, how, last4
     from plans join customers on customers.id = plans.customer_id
       left join authorisations on authorisations.plan_id = plans.id left join cards on cards.id = authorisations.card_id
     where lower(customers.email) = $1`,
    [email],
  );
