import { randomUUID } from 'node:crypto';
import { beforeEach, expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import type { Choice } from '@/core/offer/choice';
import type { Offer } from '@/core/offer/offer';
import { NO_ADDRESS } from '@/core/place/address';
import { businessById, updateBusiness } from '@/db/businesses';
import { accountBalances, ledgerTroubles } from '@/db/ledger';
import { offerRow } from '@/db/offers';
import { sharesOf } from '@/db/partners';
import { paymentById } from '@/db/payments';
import type { Db } from '@/db/pool';
import { type Receipt, receiptOfPayment } from '@/db/receipts';
import { inBusiness, readBusiness } from '@/db/transaction';
import { receiptPages } from '@/documents/pdf/receipt-pages';
import { checkoutPage, checkoutQuote } from '@/flows/checkout/checkout-page';
import { takeOrder } from '@/flows/checkout/take-order';
import { programContext } from '@/flows/door/program';
import { recordReceived } from '@/flows/payment/receive-payment';
import { settlePayments } from '@/flows/payment/settle-payment';
import { billCharge } from '@/flows/plan/bill-charge';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { addCustomer } from '@/flows/records/customers';
import { giftYears } from '@/flows/records/gifts';
import { storePartner } from '@/flows/records/partners';
import { asSuperuser } from '../../../tests/support/database';
import { paidOrder, placedOffer } from '../../../tests/support/offers';
import { watchedPlans } from '../../../tests/support/plan-house';
import { cardToken, foundHouse, type House, mailOf, sharedWorkshop, workDone } from '../../../tests/support/workshop';

const workshop = await sharedWorkshop();
let house: House;
let watched: ReturnType<typeof watchedPlans>;
beforeEach(async () => {
  house = await foundHouse();
  watched = watchedPlans(workshop, house);
});

const of = <T>(work: (db: Db) => Promise<T>) => readBusiness(programContext(house.business.id), work);
const rows = <T extends object>(text: string, more: unknown[] = []) =>
  asSuperuser<T & Record<string, string>>(workshop.admin, text, [house.business.id, ...more]);
const planIds = async () =>
  (await rows('select id from plans where business_id = $1 order by created_at')).map(({ id }) => id ?? '');
const receiptOf = async (payment: string): Promise<Receipt> => {
  const receipt = await of((db) => receiptOfPayment(db, payment));
  if (!receipt) throw new Error('No receipt');
  return receipt;
};
/** Every word that a receipt prints. */
const wordsOnPaper = ({ printed }: Receipt): string =>
  JSON.stringify(receiptPages(printed, (text, _face, size) => text.length * size * 0.5).pages);

/** A donation in euros that is repeated, all but 5.00 of which goes to a partner who bears a part of the fee. */
async function donation(more: Partial<Offer> = {}) {
  const partner = await storePartner(house.owner, null, { name: 'Ada Teacher', email: '' });
  return placedOffer(house, {
    kind: 'donation',
    title: 'Strings for schools',
    currency: 'EUR',
    purposes: ['Violas', 'Cellos'],
    ownAmount: true,
    tip: ['10'],
    repeat: { rhythms: [{ unit: 'month', every: 1 }], once: true, count: null },
    split: { partners: [{ partnerId: partner.id, percent: '40' }], keep: '5', feeFrom: 'all' },
    ...more,
  });
}
const GIFT: Partial<Choice> = { amount: '25', purpose: 'Cellos', tip: '10%', repeat: 'month:1', agrees: true };

test('a repeated donation to a partner in another currency, approved at the bank: the later ones are receipted, shared and counted as the first', async () => {
  const statement = 'We are registered for the furtherance of music.';
  await inBusiness(programContext(house.business.id), async (tx) => {
    const business = await businessById(tx);
    await updateBusiness(tx, { ...business, receiptStyle: { ...business.receiptStyle, statement } });
  });
  await watched.clock('2026-01-31', '23:59');
  const { id, called } = await donation();
  const first = await paidOrder(workshop, called, { ...GIFT, email: 'gift@marsh.example' }, 'corvid-first');
  expect(await planIds()).toEqual([]);
  const open = await of((db) => paymentById(db, first));
  // The bank answers the next day: what was said of the days still holds.
  await watched.clock('2026-02-01', '00:02');
  await fetch(open?.approvalUrl ?? '', {
    method: 'POST',
    body: new URLSearchParams({ answer: 'approve' }),
    redirect: 'manual',
  });
  await settlePayments(house.business.id, [first]);
  const [plan = ''] = await planIds();
  expect(await watched.told(plan, 3)).toEqual([
    'upcoming 2026-02-28 2500',
    'upcoming 2026-03-31 2500',
    'upcoming 2026-04-30 2500',
  ]);

  const one = await receiptOf(first);
  expect(one.printed.order?.later).toMatchObject({ each: 2500, dates: ['2026-02-28', '2026-03-31', '2026-04-30'] });
  const [agreed] = await rows('select text from authorisations where business_id = $1');
  expect(agreed?.text).toMatch(/Ida Marsh.*Strings for schools[\s\S]*€25\.00 every month[\s\S]*February 28, 2026/);

  await watched.clock('2026-02-28');
  await watched.due();
  const [{ id: second = '' } = {}] = await rows(
    'select id from payments where business_id = $1 and charge_id is not null',
  );
  const again = await receiptOf(second);
  expect(again.printed).toMatchObject({
    currency: 'EUR',
    amount: 2500,
    order: { donation: true, reference: one.printed.order?.reference, sums: { exempt: 'Donation', total: 2500 } },
    style: { statement },
  });
  const paper = wordsOnPaper(again);
  for (const words of ['Cellos', statement, 'Donation']) expect(paper).toContain(words);

  // 25.00 less 5.00 kept is 20.00 of each; a tip is nobody's but the business's.
  for (const payment of [first, second])
    expect(await of((db) => sharesOf(db, payment)), payment).toMatchObject([{ shareMinor: 2000n }]);
  expect(await of((db) => accountBalances(db, 'partner-shares'))).toMatchObject([{ currency: 'EUR', minor: 4000n }]);
  expect(await of((db) => offerRow(db, id))).toMatchObject({ sums: [{ currency: 'EUR', orders: 2, paidMinor: 5000 }] });
  const customer = await rows('select customer_id from plans where business_id = $1');
  // The tip of the first is a gift too.
  expect(await giftYears(house.owner, customer[0]?.customer_id ?? '')).toMatchObject([
    { year: 2026, currency: 'EUR', count: 2, minor: 5250n },
  ]);
  expect(await of(ledgerTroubles)).toEqual([]);

  for (const { id: message } of await rows(
    `select id from messages where business_id = $1 and kind = 'receipt' order by created_at`,
  ))
    await handOverMessage(house.business.id, message ?? '');
  const mails = await mailOf(workshop.standIns, 'gift@marsh.example');
  expect(mails.length).toBe(2);
  const [told] = mails.filter((mail) => JSON.stringify(mail).includes('every month'));
  expect(JSON.stringify(told)).toContain('25.00');
});

test('a later payment that was refused and came by transfer in two parts is shared as if it had come at once', async () => {
  await watched.clock('2026-03-02', '12:00');
  const { id, called } = await donation();
  await paidOrder(workshop, called, { ...GIFT, tip: '', email: 'parts@marsh.example' });
  const [plan = ''] = await planIds();
  const [charge] = await watched.charges(plan);
  const invoiceId = await billCharge(programContext(house.business.id), charge?.id ?? '');
  for (const [at, amountMinor] of [700n, 1800n].entries())
    await recordReceived(house.owner, invoiceId, {
      amountMinor,
      method: 'transfer',
      reference: '',
      receivedOn: '',
      requestKey: `part:${at}:${invoiceId}`,
    });
  const parts = await rows<{ share_minor: string }>(
    `select s.share_minor from payment_shares s join payments p on p.id = s.payment_id
     where s.business_id = $1 and p.invoice_id is not null order by p.settled_at, s.share_minor`,
  );
  // 7.00 less 5.00 kept is 2.00; what is missing makes 20.00 of all 25.00.
  expect(parts.map(({ share_minor }) => share_minor).sort()).toEqual(['1800', '200']);
  expect(await of((db) => offerRow(db, id))).toMatchObject({ sums: [{ paidMinor: 5000 }] });
  expect((await watched.told(plan, 1))[0]).toBe('otherwise 2026-04-02 2500');
  expect(await of(ledgerTroubles)).toEqual([]);
});

test('what is charged later is what was said, also to a customer on file who is taxed elsewhere', async () => {
  await watched.clock('2026-05-05', '12:00');
  const { called } = await placedOffer(house, {
    prices: { USD: '40' },
    tip: ['10'],
    delivery: { zones: [{ id: 'z', name: 'Post', countries: [], prices: { USD: '6' } }], freeFrom: {} },
    repeat: { rhythms: [{ unit: 'week', every: 2 }], once: false, count: 3 },
  });
  const email = 'known@marsh.example';
  const abroad = { ...NO_ADDRESS, lines: ['1 Rue'], city: 'Lyon', country: 'FR' };
  await addCustomer(house.owner, newCustomer('Ida Marsh', { email, billing: abroad }));
  const delivery = { ...NO_ADDRESS, lines: ['1 Hay'], city: 'Seattle', postalCode: '98101', country: 'US' };
  const choice = { repeat: 'week:2', agrees: true, delivery, tip: '10%', email } as const;
  const page = await checkoutPage(called, { acceptLanguage: 'en-US', lang: '', currency: '', request: '' });
  const said = await checkoutQuote(called, {
    choice: { ...(page as NonNullable<typeof page>).begun, name: 'Ida', ...choice },
    quote: '',
    request: '',
    locale: 'en-US',
  });
  await paidOrder(workshop, called, choice);
  const [plan = ''] = await planIds();
  expect(said.later).toContain('Then $50.00 every 2 weeks');
  expect(await watched.told(plan)).toEqual([
    `upcoming 2026-05-19 ${said.laterMinor}`,
    `upcoming 2026-06-02 ${said.laterMinor}`,
  ]);
  await watched.clock('2026-06-02');
  await watched.due();
  expect(await watched.told(plan)).toEqual([
    `charged 2026-05-19 ${said.laterMinor}`,
    `charged 2026-06-02 ${said.laterMinor}`,
  ]);
  expect(await watched.plan(plan)).toMatchObject({ state: 'finished' });
  expect(await of(ledgerTroubles)).toEqual([]);
});

test('somebody who agreed to other later sums than hold now is asked again', async () => {
  const { called } = await donation();
  const given = { ...GIFT, laterMinor: 1 };
  const page = await checkoutPage(called, { acceptLanguage: 'en-US', lang: '', currency: '', request: '' });
  expect(page?.repeat?.choices.length).toBe(2);
  const { laterMinor, ...choice } = given;
  const asked = {
    choice: { ...(page as NonNullable<typeof page>).begun, name: 'Ida', email: 'x@marsh.example', ...choice },
    quote: '',
    request: '',
    locale: 'en-US',
  };
  const { chargedMinor } = await checkoutQuote(called, asked);
  await expect(
    takeOrder(
      called,
      {
        ...asked,
        chargedMinor: BigInt(chargedMinor),
        laterMinor,
        checkoutKey: randomUUID(),
        attemptKey: randomUUID(),
        cardToken: await cardToken(workshop.standIns, 'corvid-good'),
        work: await workDone(called),
        passed: {},
      },
      'a',
    ),
  ).rejects.toMatchObject({ code: 'amount-changed' });
});
