/** A customer's data: taken along whole, forgotten everywhere, and the books as they were; a business that is closed and erased. */
import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { beforeEach, describe, expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { ALL_HOOK_KINDS } from '@/core/hook/events';
import { EVERYTHING } from '@/core/invoice/ask';
import { sendBy } from '@/core/invoice/send-with';
import { NO_ADDRESS } from '@/core/place/address';
import { WHOLE_REGISTER } from '@/core/register/ask';
import { LEFT_BEHIND } from '@/db/all-data';
import { ledgerTroubles } from '@/db/ledger';
import { inBusiness } from '@/db/transaction';
import { acceptDispute } from '@/flows/dispute/answer-dispute';
import { programContext } from '@/flows/door/program';
import { deskInvoicePdf } from '@/flows/file/kept-files';
import { storeFile } from '@/flows/file/store-file';
import { addHook } from '@/flows/hook/hooks';
import { actorOf } from '@/flows/house/sign-in';
import { answerQuestion } from '@/flows/invoice/answer-question';
import { checkBulk } from '@/flows/invoice/bulk-invoices';
import { cancelInvoice } from '@/flows/invoice/cancel-invoice';
import { askQuestion, decideFile } from '@/flows/invoice/consent';
import { creditInvoice } from '@/flows/invoice/credit-invoice';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { endRecurring, startRecurring } from '@/flows/invoice/recurring';
import { saveList } from '@/flows/invoice/search-invoices';
import { logPage } from '@/flows/log/log';
import { offerAnswers } from '@/flows/offer/answers';
import { sendRequest } from '@/flows/offer/requests';
import { recordReceived } from '@/flows/payment/receive-payment';
import { refundPayment } from '@/flows/payment/refund-payment';
import { takePayment } from '@/flows/payment/take-payment';
import { keepPayoutPolicy } from '@/flows/payout/policy';
import { cancelPlan } from '@/flows/plan/change-plan';
import { settleCard } from '@/flows/plan/claim-card';
import { ownPageToken } from '@/flows/plan/links';
import { ownPage } from '@/flows/plan/own-page';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { addCustomer, customerSheet, customersPage, findCustomers, mergeCustomers } from '@/flows/records/customers';
import { registerOf } from '@/flows/register/register';
import { services } from '@/outside/services';
import { asSuperuser } from '../../../tests/support/database';
import { decideDispute, disputePayment } from '../../../tests/support/disputes';
import { playMinute } from '../../../tests/support/minute';
import { paidOrder, placedOffer } from '../../../tests/support/offers';
import { clockAt, confirmedAccount, playDays } from '../../../tests/support/payouts';
import { planTerms, runningPlan } from '../../../tests/support/plans';
import { backOf } from '../../../tests/support/refunds';
import {
  cardToken,
  foundHouse,
  type House,
  keptDraft,
  plainPaper,
  sentInvoice,
  sharedWorkshop,
} from '../../../tests/support/workshop';
import { lookForDisputes } from '../dispute/hear-disputes';
import { closeBusiness, closingView, reopenBusiness } from './closing';
import { customerArchive, eraseCustomer, erasingView, ownArchive } from './customer-data';
import { forgetWhatIsOver } from './forget-over';
import { keepingView, keepKeepingRule, keptPage } from './keeping-rule';
import { takeAlong } from './take-along';

// A Monday.
const DAY = '2027-03-01' as CalendarDate;
const workshop = await sharedWorkshop({ HOOKS_LOCAL: 'yes', CARD_ATTEMPTS_PER_ADDRESS: '500' });
let house: House;
beforeEach(async () => {
  house = await foundHouse();
  await clockAt(workshop, house, DAY, '10:00');
});

const of = <T>(work: Parameters<typeof inBusiness<T>>[1]) => inBusiness(programContext(house.business.id), work);
const sound = async () => expect(await of(ledgerTroubles)).toEqual([]);
const rows = <Row extends object = Record<string, unknown>>(text: string, values: unknown[] = [house.business.id]) =>
  asSuperuser<Row>(workshop.admin, text, values);

/** What tells somebody apart, in whatever is looked through: every word of theirs has one of these. */
const MARK = /quill|zephyrine|5550173|Сова/i;

/** The tables of businesses, with their columns. */
const tables = () =>
  rows<{ name: string; binary: string[] }>(
    `select c.table_name as name, array(select b.column_name::text from information_schema.columns b where b.table_schema = 'public'
       and b.table_name = c.table_name and b.data_type = 'bytea') as binary
     from information_schema.columns c join information_schema.tables t on t.table_schema = 'public' and t.table_name = c.table_name and t.table_type = 'BASE TABLE'
     where c.table_schema = 'public' and c.column_name = 'business_id' order by 1`,
    [],
  );

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

const pdfText = (bytes: Buffer): string =>
  execFileSync('pdftotext', ['-layout', '-', '-'], { input: bytes, encoding: 'utf8' });

const pay = async (link: string, amountMinor = 11_000n) =>
  takePayment(
    link,
    { attemptKey: randomUUID(), cardToken: await cardToken(workshop.standIns, 'corvid-good'), amountMinor },
    'a',
  );
const paymentOf = async (invoiceId: string): Promise<string> =>
  (await rows<{ id: string }>('select id from payments where invoice_id = $1', [invoiceId]))[0]?.id ?? '';

const quill = (email: string) =>
  newCustomer('Zephyrine Quillfeather', {
    email,
    copies: [`copy-${email}`],
    phone: '+1 (555) 017-3999 quill',
    billing: { ...NO_ADDRESS, lines: ['77 Quill Lane'], city: 'Quillham', country: 'US' },
    delivery: { ...NO_ADDRESS, lines: ['9 Quill Yard'], country: 'US' },
    taxNumber: 'QUILL-1',
    note: 'Quill pays late',
    groups: ['Quill circle'],
  });

const field = (label: string) => ({
  id: randomUUID(),
  kind: 'text' as const,
  label,
  help: '',
  required: false,
  choices: [],
  onReceipt: true,
});

/** A customer who has done everything that customers do, each time with words of their own; all of it is over. */
async function wholeLife(): Promise<{ id: string; email: string; paidId: string; offerId: string; otherId: string }> {
  const email = `quill-${randomUUID().slice(0, 8)}@owl.example`;
  const { id } = await addCustomer(house.owner, quill(email));
  const twin = await addCustomer(house.owner, { ...quill(`2-${email}`), name: 'Z. Quillfeather' });
  await addHook(house.owner, { url: 'http://127.0.0.1:9/nobody', kinds: ALL_HOOK_KINDS });
  const file = await storeFile(house.owner, 'quill.csv', 'attachment', Buffer.from('For,Quill\nalone,1\n')).catch(
    () => null,
  );
  const paper = plainPaper(house, {
    customerId: id,
    title: 'Quill cabinet',
    reference: 'QUILL-7',
    note: 'For Zephyrine',
    memo: 'Quill memo',
    files: file ? [{ ...file, approve: true }] : [],
  });
  const lines = paper.lines.map((line) => ({ ...line, what: 'Cabinet for Quill', note: 'as Quill asked' }));
  const paid = await sentInvoice(house, { ...paper, lines });
  if (file)
    await decideFile(paid.link, file.id, { decision: 'approved', comment: 'Quill likes it', byName: 'Ann Quill' });
  await askQuestion(paid.link, { text: 'Is it for Quill?', byName: '' }, 'a');
  const [question] = (await invoiceSheet(house.owner, paid.id)).questions;
  await answerQuestion(house.owner, question?.id ?? '', 'Yes, Zephyrine.');
  await pay(paid.link);
  await refundPayment(house.owner, await paymentOf(paid.id), backOf(1000n, { reason: 'Quill was overcharged' }));
  const cancelled = await sentInvoice(house, { ...paper, lines, files: [] });
  await cancelInvoice(house.owner, cancelled.id, 'Quill changed her mind', true);
  const byHand = await sentInvoice(house, { ...paper, lines, files: [], customerId: twin.id });
  await recordReceived(house.owner, byHand.id, {
    amountMinor: 11_000n,
    method: 'transfer',
    reference: 'From Quill',
    receivedOn: '',
    requestKey: randomUUID(),
  });
  await keptDraft(house, { ...paper, lines, files: [] });
  const disputed = await sentInvoice(house, { ...paper, lines, files: [] });
  await pay(disputed.link);
  await disputePayment(workshop, await paymentOf(disputed.id));
  await lookForDisputes(programContext(house.business.id));
  const [dispute] = await rows<{ id: string }>('select id from disputes where business_id = $1');
  await acceptDispute(house.owner, dispute?.id ?? '');
  await decideDispute(
    workshop,
    (await rows<{ key: string }>('select key from disputes where business_id = $1'))[0]?.key ?? '',
    false,
  );
  await lookForDisputes(programContext(house.business.id));
  await asSuperuser(workshop.admin, `update disputes set words = 'Quill never said so' where business_id = $1`, [
    house.business.id,
  ]);

  const fields = [field('Left or right?')];
  const offer = await placedOffer(house, {
    prices: { USD: '40' },
    fields,
    phone: 'may',
    message: true,
    billing: 'may',
  });
  await paidOrder(workshop, offer.called, {
    name: 'Zephyrine Quillfeather',
    email,
    phone: '5550173999',
    message: 'Quill waits at the gate',
    answers: { [fields[0]?.id ?? '']: 'Left, says Quill' },
    billing: { lines: ['77 Quill Lane'], city: 'Quillham', region: '', postalCode: '12345', country: 'US' },
  });
  await paidOrder(workshop, offer.called, { name: 'Zephyrine Quillfeather', email }, 'corvid-funds');
  await paidOrder(workshop, offer.called, { name: 'Otto Reed', email: 'otto@reed.example' });
  const page = await placedOffer(house, { prices: { USD: '40' } });
  const filled = { name: 'Zephyrine Quillfeather' };
  await sendRequest(house.owner, page.id, {
    toName: 'Zephyrine Quillfeather',
    toAddress: email,
    filled,
    locked: true,
    way: 'mail',
    words: 'Dear Quill',
  });
  const voucher = await placedOffer(house, { kind: 'open', ownAmount: true, title: 'A voucher', voucher: true });
  const gift = { toName: 'Ann Quill', toEmail: `ann-${email}`, on: '', message: 'From Zephyrine' };
  await paidOrder(workshop, voucher.called, { amount: '50', name: 'Zephyrine Quillfeather', email, gift });

  const plan = await runningPlan(
    house,
    workshop.standIns,
    planTerms(house, DAY, { name: 'Quill club' }),
    undefined,
    'Zephyrine Quillfeather',
  );
  await cancelPlan(house.owner, plan.id, false);
  const draft = await keptDraft(house, { ...paper, lines, files: [] });
  const recurringId = await startRecurring(house.owner, draft, {
    name: 'Quill rent',
    makes: 'draft',
    schedule: { unit: 'year', every: 1, start: '2040-01-01' as never, ends: 'never' },
  });
  await endRecurring(house.owner, recurringId as unknown as string);
  await checkBulk(house.owner, draft, 'Many', { customerIds: [id], group: '', rows: [] }, sendBy('mail'));
  await saveList(house.owner, 'Quillfeather’s', { ...EVERYTHING, words: 'quillfeather' });
  await saveList(house.owner, 'Paid', { ...EVERYTHING, state: 'paid' });
  await mergeCustomers(house.owner, id, twin.id);
  await mergeCustomers(house.owner, id, plan.customerId);
  expect(await playMinute()).toEqual([]);
  for (const message of await rows<{ id: string }>(
    `select id from messages where business_id = $1 and state = 'queued'`,
  ))
    await handOverMessage(house.business.id, message.id);
  await deskInvoicePdf(house.owner, paid.id);
  return { id, email, paidId: paid.id, offerId: offer.id, otherId: house.customerId };
}

/** What an archive holds, unpacked: each file by its path, PDFs as text. */
async function unpacked(archive: { parts: AsyncIterable<Uint8Array> }): Promise<Map<string, string>> {
  const folder = mkdtempSync(join(tmpdir(), 'dahlia-archive-'));
  const chunks: Uint8Array[] = [];
  for await (const chunk of archive.parts) chunks.push(chunk);
  writeFileSync(join(folder, 'a.zip'), Buffer.concat(chunks));
  execFileSync('unzip', ['-q', 'a.zip', '-d', 'out'], { cwd: folder });
  const files = readdirSync(join(folder, 'out'), { recursive: true, withFileTypes: true }).filter((one) =>
    one.isFile(),
  );
  return new Map(
    files.map((one) => {
      const path = join(one.parentPath, one.name);
      const bytes = readFileSync(path);
      return [
        path.slice(join(folder, 'out').length + 1),
        one.name.endsWith('.pdf') ? pdfText(bytes) : bytes.toString(),
      ];
    }),
  );
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
      'disputes.words',
      'documents.bytes',
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

/** Everything that is not the business's own any more: through every table, also those of sign-in. */
const leftOf = async (id: string): Promise<string[]> => {
  const found: string[] = [];
  for (const { name } of await tables())
    if ((await rows(`select from ${name} where business_id = $1 limit 1`, [id])).length > 0) found.push(name);
  return found;
};

test('a business is closed when nothing is open and all is taken along, looked at while it is kept, and then gone whole', async () => {
  const life = await wholeLife();
  await confirmedAccount(workshop, house);
  await keepPayoutPolicy(house.owner, { when: { kind: 'daily' }, smallest: {} } as never);
  const name = house.business.name;
  await expect(closeBusiness(house.owner, 'Something else')).rejects.toMatchObject({ code: 'name-differs' });
  const open = await closingView(house.owner);
  expect(open.open.map(({ kind }) => kind)).toEqual(['vouchersOwed', 'notPaidOut']);
  await expect(closeBusiness(house.owner, name)).rejects.toMatchObject({ code: 'still-open' });
  const [sale] = await rows<{ id: string }>('select payment_id as id from vouchers where business_id = $1');
  await refundPayment(house.owner, sale?.id ?? '', backOf(5000n));
  await playDays(
    workshop,
    house,
    Array.from({ length: 10 }, (_, at) => addDays(DAY, at)),
  );
  expect((await closingView(house.owner)).open).toEqual([]);
  await expect(closeBusiness(house.owner, name)).rejects.toMatchObject({ code: 'take-along-first' });

  const all = await unpacked(await takeAlong(house.owner));
  const kept = (await tables()).map((one) => one.name).filter((one) => LEFT_BEHIND[one] !== 'all');
  expect([...all.keys()].filter((path) => path.startsWith('data/')).sort()).toEqual(
    kept.map((one) => `data/${one.replaceAll('_', '-')}.json`).sort(),
  );
  for (const table of kept) {
    const taken = JSON.parse(all.get(`data/${table.replaceAll('_', '-')}.json`) ?? '');
    const [{ count = -1 } = {}] = await rows<{ count: number }>(
      `select count(*)::int as count from ${table} where business_id = $1`,
    );
    // What it notes of being taken along comes after it was read.
    if (table !== 'log_entries') expect(taken.length, table).toBe(count);
  }
  expect([...all.values()].join('\n')).not.toMatch(/password_hash|signing_secret|kept_id|"secret"|link_token/);
  expect(all.get('read-me.txt')).toContain(name);

  await closeBusiness(house.owner, ` ${name.toUpperCase()} `);
  expect(await rows(`select state, count(*)::int from offers where business_id = $1 group by 1`)).toMatchObject([
    { state: 'closed' },
  ]);
  const closed = { ...house.owner, closed: true };
  await expect(addCustomer(closed, quill('late@quill.example'))).rejects.toMatchObject({ code: 'business-closed' });
  expect((await customerSheet(closed, life.id)).customer.name).toBe('Zephyrine Quillfeather');
  expect((await deskInvoicePdf(closed, life.paidId)).bytes.length).toBeGreaterThan(1000);
  expect((await unpacked(await takeAlong(closed))).size).toBe(all.size);
  await reopenBusiness(closed);
  await addCustomer(house.owner, quill('late@quill.example'));
  await closeBusiness(house.owner, name);
  expect(
    await rows(
      `select kind from log_entries where business_id = $1 and kind in ('closed', 'reopened') order by noted_at, id`,
    ),
  ).toHaveLength(3);
  const told = await rows<{ to_address: string }>(
    `select to_address from messages where business_id = $1 and kind = 'business-closed'`,
  );
  expect(told).toHaveLength(12);

  const neighbour = await foundHouse('Neighbour');
  await sentInvoice(neighbour);
  const theirs = await leftOf(neighbour.business.id);
  const [{ day = DAY } = {}] = await rows<{ day: CalendarDate }>(
    'select erase_on::text as day from businesses where business_id = $1',
  );
  expect(day).toBe('2035-01-01');
  const before = await clockAt(workshop, house, '2034-12-31' as CalendarDate, '12:00');
  await forgetWhatIsOver(programContext(house.business.id).at(before));
  expect(await leftOf(house.business.id)).toContain('ledger_entries');
  const on = await clockAt(workshop, house, day, '00:30');
  expect(dateInZone(on, house.business.zone)).toBe(day);
  await forgetWhatIsOver(programContext(house.business.id).at(on));
  expect(await leftOf(house.business.id)).toEqual([]);
  expect(await leftOf(neighbour.business.id)).toEqual(theirs);
  expect(await actorOf('nobody')).toBeNull();
  expect(await playMinute()).toEqual([]);
});

test('nothing of a business that is open, or whose day has not come, is erased by anybody; the books and the log refuse', async () => {
  await sentInvoice(house);
  const erase = (day: string) => of(async (tx) => (await tx.query('select erase_business($1)', [day])).rows[0]);
  expect(await erase('2099-01-01')).toEqual({ erase_business: false });
  for (const table of ['ledger_entries', 'ledger_postings', 'log_entries'])
    await expect(
      of((tx) =>
        tx
          .query(`select set_config('dahlia.erasing', 'a closed business', true)`)
          .then(() => tx.query(`delete from ${table}`)),
      ),
    ).rejects.toMatchObject({ code: '42501' });
  expect(await leftOf(house.business.id)).toContain('ledger_entries');
});
