import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, test } from 'vitest';
import { type CalendarDate } from '@/core/dates/calendar-date';
import { ALL_HOOK_KINDS } from '@/core/hook/events';
import { WHOLE_REGISTER } from '@/core/register/ask';
import { programContext } from '@/flows/door/program';
import { deskInvoicePdf } from '@/flows/file/kept-files';
import { addHook } from '@/flows/hook/hooks';
import { creditInvoice } from '@/flows/invoice/credit-invoice';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { logPage } from '@/flows/log/log';
import { offerAnswers } from '@/flows/offer/answers';
import { refundPayment } from '@/flows/payment/refund-payment';
import { cancelPlan } from '@/flows/plan/change-plan';
import { settleCard } from '@/flows/plan/claim-card';
import { ownPageToken } from '@/flows/plan/links';
import { ownPage } from '@/flows/plan/own-page';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { addCustomer, customerSheet, customersPage, findCustomers, mergeCustomers } from '@/flows/records/customers';
import { registerOf } from '@/flows/register/register';
import { services } from '@/outside/services';
import { asSuperuser } from '../../../tests/support/database';
import { paidOrder, placedOffer } from '../../../tests/support/offers';
import { clockAt } from '../../../tests/support/payouts';
import { planTerms, runningPlan } from '../../../tests/support/plans';
import { backOf } from '../../../tests/support/refunds';
import { DAY, lives, pdfText, quill, unpacked } from '../../../tests/support/whole-life';
import { foundHouse, type House, plainPaper, sentInvoice, sharedWorkshop } from '../../../tests/support/workshop';
import { customerArchive, eraseCustomer, erasingView, ownArchive } from './customer-data';
import { forgetWhatIsOver } from './forget-over';
import { keepingView, keepKeepingRule, keptPage } from './keeping-rule';

const workshop = await sharedWorkshop({ HOOKS_LOCAL: 'yes', CARD_ATTEMPTS_PER_ADDRESS: '500' });
let house: House;
beforeEach(async () => {
  house = await foundHouse();
  await clockAt(workshop, house, DAY, '10:00');
});
const { sound, rows, tables, pay, paymentOf, wholeLife } = lives(workshop, () => house);

/** What tells somebody apart, in whatever is looked through: every word of theirs has one of these. */
const MARK = /quill|zephyrine|5550173|Сова/i;

/** Where the marks stand: `table.column`, through every table, file, paper and job of the business. */
async function marked(): Promise<string[]> {
  const found = new Set<string>();
  for (const { name, binary } of await tables()) {
    for (const row of await rows(`select * from ${name} where business_id = $1`)) {
      for (const [column, value] of Object.entries(row)) {
        if (binary.includes(column) && value) {
          const bytes = value as Buffer;
          const text = bytes.subarray(0, 5).toString() === '%PDF-' ? pdfText(bytes) : bytes.toString('utf8');
          if (MARK.test(text)) found.add(`${name}.${column}`);
        } else if (MARK.test(JSON.stringify(value) ?? '')) found.add(`${name}.${column}`);
      }
    }
  }
  const jobs = await rows<{ text: string }>(
    `select job.payload::text || coalesce(job.key, '') as text from graphile_worker._private_jobs job where job.payload->>'businessId' = $1`,
  );
  if (jobs.some(({ text }) => MARK.test(text))) found.add('jobs');
  return [...found].sort();
}

test('what a customer did is there in a whole archive, at the desk with what is written for oneself, on their own page without', async () => {
  const { id, paidId } = await wholeLife();
  const files = await unpacked(await customerArchive(house.bookkeeper, id));
  const everything = JSON.parse(files.get('everything.json') ?? '{}');
  for (const part of [
    'customer',
    'invoices',
    'credit-notes',
    'questions',
    'approvals',
    'orders',
    'parcels',
    'requests',
    'payments',
    'refunds',
    'receipts',
    'disputes',
    'plans',
    'recurring-invoices',
    'cards-and-accounts',
    'authorisations',
    'vouchers',
    'messages',
    'what-happened',
  ])
    expect(everything[part], part).toBeDefined();
  // Those who were merged into one are in it too.
  expect(everything.customer).toHaveLength(3);
  const { number } = (await invoiceSheet(house.owner, paidId)).invoice;
  expect(files.get(`papers/invoices/${number}.pdf`)).toContain('Zephyrine Quillfeather');
  expect([...files.keys()].filter((name) => name.startsWith('papers/receipts/')).length).toBeGreaterThan(3);
  expect(files.get('read-me.txt')).toContain('Zephyrine Quillfeather');
  expect(JSON.stringify(everything)).toContain('Quill pays late');
  expect(JSON.stringify(everything)).not.toMatch(/otto@reed|Perpetua|kept_id|link_token|fingerprint/);
  const own = await unpacked(await ownArchive(ownPageToken(house.business.id, id, new Date(`${DAY}T19:00:00Z`))));
  expect(own.get('everything.json')).toContain('Quill Lane');
  expect(own.get('everything.json')).not.toMatch(/Quill pays late|Quill memo|never said so/);
  expect((await logPage(house.owner, null)).entries[0]).toMatchObject({
    kind: 'exported',
    changes: [{ what: 'Everything of one customer', to: id }],
  });
  const old = ownPageToken(house.business.id, id, new Date(`2027-01-01T19:00:00Z`));
  await expect(ownArchive(old)).rejects.toMatchObject({ code: 'link-over' });
  const other = await foundHouse('Elsewhere');
  await expect(customerArchive(other.owner, id)).rejects.toMatchObject({ code: 'not-found' });
  await expect(customerArchive(house.reader, id)).rejects.toMatchObject({ code: 'not-allowed' });
});

test('erased, nobody is left in any table, file or job but on papers; those go with their time, and the books stay', async () => {
  const life = await wholeLife();
  const before = await marked();
  // The test is worth what it covers: all of these held their words.
  expect(before).toEqual(
    expect.arrayContaining([
      'approvals.by_name',
      'approvals.comment',
      'authorisations.given_by',
      'bulk_invoices.paper',
      'collections.name',
      'credit_notes.printed',
      'credit_notes.reason',
      'customers.billing',
      'customers.copies',
      'customers.delivery',
      'customers.email',
      'customers.groups',
      'customers.name',
      'customers.note',
      'customers.phone',
      'customers.search',
      'customers.tax_number',
      'digital_grants.what',
      'disputes.words',
      'documents.bytes',
      'handover_lines.what',
      'handovers.recipient',
      'hook_deliveries.details',
      'invoices.paper',
      'invoices.printed',
      'invoices.reference',
      'invoices.title',
      'messages.details',
      'messages.to_address',
      'messages.to_name',
      'orders.choice',
      'orders.payer_email',
      'orders.printed',
      'parcel_lines.what',
      'parcel_scans.place',
      'parcels.label',
      'parcels.proof',
      'parcels.recipient',
      'parcels.search',
      'payments.reference',
      'plans.name',
      'plans.terms',
      'questions.answer',
      'questions.text',
      'receipts.printed',
      'recurring_invoices.name',
      'recurring_invoices.paper',
      'refunds.reason',
      'requests.filled',
      'requests.to_name',
      'requests.words',
      'returns.answer',
      'returns.words',
      'saved_lists.asked',
      'timeline.by_name',
      'timeline.details',
      'vouchers.message',
      'vouchers.to_name',
    ]),
  );
  const sums = async () =>
    rows(
      `select account, currency, sum(amount_minor)::text as minor, count(*)::int as count from ledger_postings where business_id = $1 group by 1, 2 order by 1, 2`,
    );
  const figures = async () =>
    rows(`select number, status, total_minor::text as total, paid_minor::text as paid, tax_minor::text as tax from invoices
      where business_id = $1 and number is not null order by number`);
  const [books, papers] = [await sums(), await figures()];
  const register = await registerOf(house.reader, WHOLE_REGISTER, null);
  const view = await erasingView(house.clerk, life.id);
  expect(view).toMatchObject({ open: [], papersUntil: '2034-12-31', erasedAt: null });
  await expect(eraseCustomer({ ...house.owner, provedSeconds: 301 }, life.id)).rejects.toMatchObject({
    code: 'prove-again',
  });
  await eraseCustomer(house.owner, life.id);
  expect(await marked()).toEqual(
    [
      'credit_notes.printed',
      'credit_notes.reason',
      'documents.bytes',
      'files.bytes',
      'files.name',
      'invoices.printed',
      'payments.reference',
      'receipts.printed',
      'refunds.reason',
    ].filter((place) => before.includes(place)),
  );
  expect(await sums()).toEqual(books);
  expect(await figures()).toEqual(papers);
  // A list that asks for something else stays.
  expect(await rows(`select name from saved_lists where business_id = $1`)).toEqual([{ name: 'Paid' }]);
  await sound();
  // What is left is found by nobody and opens nothing, and everything of it can still be looked at.
  expect(await findCustomers(house.owner, 'Erased')).toEqual([]);
  expect((await customersPage(house.owner, { words: '', group: '' })).rows.map(({ name }) => name)).toEqual(
    expect.not.arrayContaining(['Erased customer']),
  );
  expect((await customerSheet(house.owner, life.id)).customer.name).toBe('Erased customer');
  expect((await invoiceSheet(house.owner, life.paidId)).customer?.name).toBe('Erased customer');
  expect((await offerAnswers(house.owner, life.offerId)).rows.map(({ payer }) => payer).sort()).toEqual([
    'Erased customer',
    'Otto Reed',
  ]);
  expect((await registerOf(house.reader, WHOLE_REGISTER, null)).rows.length).toBe(register.rows.length);
  expect(await ownPage(ownPageToken(house.business.id, life.id, new Date(`${DAY}T19:00:00Z`)))).toBeNull();
  await expect(eraseCustomer(house.owner, life.id)).rejects.toMatchObject({ code: 'not-found' });
  expect(pdfText((await deskInvoicePdf(house.owner, life.paidId)).bytes)).toContain('Zephyrine Quillfeather');
  // The processor forgets the card.
  const claims = await rows<{ key: string; kept: string }>(
    `select key, kept_id as kept from card_claims where business_id = $1 and key like 'drop:%'`,
  );
  expect(claims.length).toBeGreaterThan(0);
  for (const { key, kept } of claims) {
    await settleCard(house.business.id, key);
    expect(await services().cards.keptCard(kept)).toBe('gone');
  }

  const nightOf = async (day: CalendarDate) => {
    const now = await clockAt(workshop, house, day, '01:00');
    await forgetWhatIsOver(programContext(house.business.id).at(now));
  };
  await nightOf('2034-12-31' as CalendarDate);
  expect(await marked()).toContain('invoices.printed');
  await nightOf('2035-01-01' as CalendarDate);
  expect(await marked()).toEqual([]);
  await nightOf('2035-01-02' as CalendarDate);
  expect(await sums()).toEqual(books);
  expect(await figures()).toEqual(papers);
  await sound();
  expect(pdfText((await deskInvoicePdf(house.owner, life.paidId)).bytes)).toContain('Erased customer');
  expect((await invoiceSheet(house.owner, life.paidId)).invoice.printed?.lines[0]?.net).toBe(10_000);
});

describe('what is open is dealt with first', () => {
  test('an invoice, a plan, a payment under way and money of theirs hold it up, each by name', async () => {
    const { id } = await addCustomer(house.owner, quill('quill@owl.example'));
    const paper = plainPaper(house, { customerId: id });
    const sent = await sentInvoice(house, paper);
    await expect(eraseCustomer(house.owner, id)).rejects.toMatchObject({
      code: 'still-open',
      fields: [{ field: 'invoices' }],
    });
    await pay(sent.link);
    await creditInvoice(house.owner, sent.id, {
      amountMinor: 500n,
      reason: 'x',
      tell: false,
      requestKey: randomUUID(),
    });
    await expect(eraseCustomer(house.owner, id)).rejects.toMatchObject({ fields: [{ field: 'credit' }] });
    await refundPayment(house.owner, await paymentOf(sent.id), backOf(500n));
    const plan = await runningPlan(house, workshop.standIns, planTerms(house, '2027-04-01'));
    await mergeCustomers(house.owner, id, plan.customerId);
    await expect(eraseCustomer(house.owner, id)).rejects.toMatchObject({ fields: [{ field: 'plans' }] });
    await cancelPlan(house.owner, plan.id, false);
    await eraseCustomer(house.owner, id);
    expect((await erasingView(house.owner, id)).erasedAt).not.toBeNull();
    await sound();
  });

  test('somebody who sends another invoice at the same moment either comes first, or finds nobody', async () => {
    for (let round = 0; round < 4; round++) {
      const { id } = await addCustomer(house.owner, quill(`quill-${round}@owl.example`));
      const [, sent] = await Promise.allSettled([
        eraseCustomer(house.owner, id),
        sentInvoice(house, plainPaper(house, { customerId: id })),
      ]);
      const [row] = await rows<{ erased: boolean; open: number }>(
        `select erased_at is not null as erased, (select count(*)::int from invoices where customer_id = customers.id and status in ('sent', 'seen')) as open
         from customers where id = $1`,
        [id],
      );
      expect(row, sent.status).not.toMatchObject({ erased: true, open: 1 });
    }
  });
});

test('what is kept follows the law and the owner; customers read it by any link; each kind goes when its time is over', async () => {
  expect((await keepingView(house.owner)).rule).toEqual({
    paperYears: 7,
    checkoutDays: 30,
    mailMonths: 24,
    programDays: 30,
  });
  const rule = { paperYears: 9, checkoutDays: 10, mailMonths: 3, programDays: 5 };
  await expect(keepKeepingRule(house.owner, { ...rule, paperYears: 6 })).rejects.toMatchObject({
    code: 'keeping-wrong',
    fields: [{ field: 'paperYears' }],
  });
  await expect(keepKeepingRule(house.bookkeeper, rule)).rejects.toMatchObject({ code: 'not-allowed' });
  await keepKeepingRule(house.owner, rule);
  await addHook(house.owner, { url: 'http://127.0.0.1:9/nobody', kinds: ALL_HOOK_KINDS });
  const offer = await placedOffer(house, { prices: { USD: '40' } });
  await paidOrder(workshop, offer.called, { name: 'Nils Quill', email: 'nils@quill.example' }, 'corvid-funds');
  const { link } = await sentInvoice(house);
  const token = ownPageToken(house.business.id, house.customerId, new Date());
  for (const opens of [link, offer.called, token])
    expect(await keptPage(opens)).toMatchObject({ rule, seller: { name: 'Sallow Joinery' } });
  expect(await keptPage('nobody')).toBeNull();
  for (const message of await rows<{ id: string }>(`select id from messages where business_id = $1`))
    await handOverMessage(house.business.id, message.id);
  await asSuperuser(workshop.admin, `update hook_deliveries set state = 'done' where business_id = $1`, [
    house.business.id,
  ]);
  const left = async () =>
    (
      await rows(`select (select count(*)::int from orders where business_id = $1 and payer_email <> '') as orders,
        (select count(*)::int from messages where business_id = $1 and to_address <> '') as mails,
        (select count(*)::int from hook_deliveries where business_id = $1) as told`)
    )[0];
  const night = async (day: CalendarDate) => {
    const now = await clockAt(workshop, house, day, '10:01');
    await forgetWhatIsOver(programContext(house.business.id).at(now));
    return left();
  };
  const first = await left();
  expect(first).toMatchObject({ orders: 1 });
  expect(await night('2027-03-05' as CalendarDate)).toEqual(first);
  expect(await night('2027-03-06' as CalendarDate)).toEqual({ ...first, told: 0 });
  expect(await night('2027-03-11' as CalendarDate)).toMatchObject({ orders: 0 });
  expect(await night('2027-05-31' as CalendarDate)).toMatchObject({ mails: 0 });
});
