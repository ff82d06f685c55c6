import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { describe, expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import { EVERYTHING, type InvoiceAsk } from '@/core/invoice/ask';
import { sendBy } from '@/core/invoice/send-with';
import { newLine, type Paper, USUAL_WAYS } from '@/core/paper/paper';
import { invoiceById } from '@/db/invoices';
import { ledgerTroubles } from '@/db/ledger';
import { queuedMessages } from '@/db/messages';
import { payerView } from '@/db/payer-view';
import { outsideBusiness, readBusiness } from '@/db/transaction';
import { readInvoiceXml } from '@/documents/xml/read-invoice';
import { programContext } from '@/flows/door/program';
import { deskInvoicePdf, deskInvoiceXml } from '@/flows/file/kept-files';
import { storeFile } from '@/flows/file/store-file';
import { hearMailEvent } from '@/flows/message/hear-mail-event';
import { recordReceived } from '@/flows/payment/receive-payment';
import { takePayment } from '@/flows/payment/take-payment';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { addCustomer } from '@/flows/records/customers';
import { customerStatement } from '@/flows/records/statement';
import { eventSignature } from '../../../standins/cards/webhooks';
import { asSuperuser } from '../../../tests/support/database';
import {
  cardToken,
  foundHouse,
  keptDraft,
  mailOf,
  plainPaper,
  sentInvoice,
  sharedWorkshop,
} from '../../../tests/support/workshop';
import { answerQuestion } from './answer-question';
import { cancelInvoice } from './cancel-invoice';
import { changeInvoice } from './change-invoice';
import { askQuestion, decideFile } from './consent';
import { creditInvoice } from './credit-invoice';
import type { ListPage } from './invoice-list';
import { invoiceSheet, printedOf } from './invoice-sheet';
import { cancelMany, exportMany, remindMany } from './many-invoices';
import { remindNow } from './remind';
import { listOverview, saveList, searchInvoices } from './search-invoices';
import { sendInvoice } from './send-invoice';

const workshop = await sharedWorkshop({ CARD_ATTEMPTS_PER_ADDRESS: '500', CARD_ATTEMPTS_PER_INVOICE: '500' });
const house = await foundHouse();

const invoiceOf = async (id: string) => {
  const invoice = await readBusiness(programContext(house.business.id), (db) => invoiceById(db, id));
  if (!invoice) throw new Error('gone');
  return invoice;
};
const kinds = async (id: string) =>
  (await invoiceSheet(house.owner, id)).timeline.map(({ event: happening }) => happening.kind);
const booksAgree = () => readBusiness(programContext(house.business.id), (db) => ledgerTroubles(db));
const pay = async (link: string, amountMinor: bigint, more: { tipMinor?: bigint; acceptsTerms?: boolean } = {}) =>
  takePayment(
    link,
    { attemptKey: randomUUID(), cardToken: await cardToken(workshop.standIns, 'corvid-good'), amountMinor, ...more },
    'a',
  );
const received = (amountMinor: bigint, requestKey: string = randomUUID()) =>
  ({ amountMinor, method: 'transfer', reference: 'statement 4', receivedOn: '', requestKey }) as const;
const mailEverything = async () => {
  for (const { id } of await readBusiness(programContext(house.business.id), (db) => queuedMessages(db)))
    await handOverMessage(house.business.id, id);
};
const inParts = (first = ''): Partial<Paper> => ({ ways: { ...USUAL_WAYS, parts: true, first } });

describe('paying in parts', () => {
  test('twenty people at once never pay more than is due', async () => {
    const { id, link } = await sentInvoice(house, plainPaper(house, inParts()));
    // 110.00 asked for by twenty who each want to pay 10.00: eleven fit.
    const tokens = await Promise.all(Array.from({ length: 20 }, () => cardToken(workshop.standIns, 'corvid-good')));
    const tried = await Promise.allSettled(
      tokens.map((token, at) =>
        takePayment(link, { attemptKey: randomUUID(), cardToken: token, amountMinor: 1000n }, `p${at}`),
      ),
    );
    const paid = tried.filter((one) => one.status === 'fulfilled' && one.value.state === 'paid').length;
    expect(paid).toBe(11);
    expect(await invoiceOf(id)).toMatchObject({ dueMinor: 0n, paidMinor: 11_000n });
    for (const one of tried)
      if (one.status === 'rejected')
        expect(['already-paid', 'payment-under-way', 'amount-changed']).toContain(one.reason.code);
    expect(await booksAgree()).toEqual([]);
  });

  test('the first payment is at least what was asked for; a tip is on top and owes nothing', async () => {
    const { id, link } = await sentInvoice(
      house,
      plainPaper(house, { ways: { ...USUAL_WAYS, parts: true, first: '50%', tip: ['10'] } }),
    );
    await expect(pay(link, 5499n)).rejects.toMatchObject({ code: 'amount-changed' });
    expect(await pay(link, 5500n, { tipMinor: 550n })).toMatchObject({ state: 'paid' });
    expect(await invoiceOf(id)).toMatchObject({ dueMinor: 5500n, paidMinor: 5500n });
    const view = await outsideBusiness((db) => payerView(db, link));
    expect(view?.receipts).toMatchObject([{ amountMinor: 5500, tipMinor: 550 }]);
    expect(await booksAgree()).toEqual([]);
    const plain = await sentInvoice(house);
    await expect(pay(plain.link, 11_000n, { tipMinor: 1n })).rejects.toMatchObject({ code: 'amount-changed' });
    await expect(pay(plain.link, 5000n)).rejects.toMatchObject({ code: 'amount-changed' });
  });
});

describe('before paying', () => {
  test('a file is approved and the terms accepted, each kept with what it was about', async () => {
    const png = await sharp({ create: { width: 9, height: 9, channels: 3, background: '#fff' } })
      .png()
      .toBuffer();
    const file = await storeFile(house.owner, 'drawing.png', 'attachment', png);
    const { keepTerms } = await import('@/flows/records/profile');
    const termsId = await keepTerms(house.owner, null, 'Terms', 'All of it');
    const { id, link } = await sentInvoice(house, plainPaper(house, { files: [{ ...file, approve: true }], termsId }));
    await expect(pay(link, 11_000n, { acceptsTerms: true })).rejects.toMatchObject({ code: 'approve-first' });
    await decideFile(link, file.id, { decision: 'change', comment: 'Wider, please', byName: '' });
    await expect(pay(link, 11_000n, { acceptsTerms: true })).rejects.toMatchObject({ code: 'approve-first' });
    await decideFile(link, file.id, { decision: 'approved', comment: '', byName: 'Her brother' });
    await expect(pay(link, 11_000n)).rejects.toMatchObject({ code: 'accept-first' });
    expect(await pay(link, 11_000n, { acceptsTerms: true })).toMatchObject({ state: 'paid' });
    const [approval] = await asSuperuser(
      workshop.admin,
      'select a.sha256 = f.sha256 as same, a.by_name from approvals a join files f on f.id = file_id where decision = $1',
      ['approved'],
    );
    expect(approval).toEqual({ same: true, by_name: 'Her brother' });
    expect((await invoiceOf(id)).termsAccepted).toMatchObject({ version: 1 });
    await expect(
      decideFile(link, randomUUID(), { decision: 'approved', comment: '', byName: '' }),
    ).rejects.toMatchObject({ code: 'not-found' });
  });
});

describe('money that came another way', () => {
  test('settles in parts, each press once, with receipts; never more than is due', async () => {
    const { id } = await sentInvoice(house);
    const first = received(4000n);
    await recordReceived(house.owner, id, first);
    await recordReceived(house.owner, id, first);
    expect(await invoiceOf(id)).toMatchObject({ dueMinor: 7000n });
    await expect(recordReceived(house.owner, id, received(7001n))).rejects.toMatchObject({ code: 'payment-too-large' });
    await recordReceived(house.owner, id, {
      ...received(7000n),
      method: 'cash',
      reference: '',
      receivedOn: '2026-01-02',
    });
    const sheet = await invoiceSheet(house.owner, id);
    expect(sheet.payments.map(({ method, receiptNumber }) => [method, receiptNumber !== null])).toEqual([
      ['cash', true],
      ['transfer', true],
    ]);
    await expect(recordReceived(house.owner, id, received(1n))).rejects.toMatchObject({ code: 'already-paid' });
    expect(await booksAgree()).toEqual([]);
  });
});

describe('cancelling, crediting, changing', () => {
  test('a cancelled invoice keeps its number, owes nothing and is not paid; one with payments is not cancelled', async () => {
    const { id, link, number } = await sentInvoice(house);
    await cancelInvoice(house.owner, id, 'Billed twice', true);
    await cancelInvoice(house.owner, id, 'Billed twice', true);
    expect(await invoiceOf(id)).toMatchObject({ stage: 'cancelled', number });
    await expect(pay(link, 11_000n)).rejects.toMatchObject({ code: 'invoice-not-payable' });
    expect((await kinds(id)).filter((kind) => kind === 'cancelled')).toHaveLength(1);
    const part = await sentInvoice(house, plainPaper(house, inParts()));
    await recordReceived(house.owner, part.id, received(100n));
    await expect(cancelInvoice(house.owner, part.id, 'x', false)).rejects.toMatchObject({ code: 'has-payments' });
    expect(await booksAgree()).toEqual([]);
  });

  test('credits take the taxes back in proportion, once each press, at most the total; after payment they are a balance', async () => {
    const { id } = await sentInvoice(house);
    const asked = { amountMinor: 3300n, reason: 'Scratched', tell: false, requestKey: randomUUID() };
    const number = await creditInvoice(house.owner, id, asked);
    expect(await creditInvoice(house.owner, id, asked)).toBe(number);
    expect(await invoiceOf(id)).toMatchObject({ creditedMinor: 3300n, dueMinor: 7700n });
    const [note] = (await invoiceSheet(house.owner, id)).credits;
    // 10 percent on 100.00 is 10.00 of 110.00; of 33.00 that is 3.00.
    expect(note).toMatchObject({ taxMinor: 300n });
    await recordReceived(house.owner, id, received(7700n));
    await creditInvoice(house.owner, id, { ...asked, amountMinor: 7700n, requestKey: randomUUID() });
    await expect(
      creditInvoice(house.owner, id, { ...asked, amountMinor: 1n, requestKey: randomUUID() }),
    ).rejects.toMatchObject({ code: 'credit-too-large' });
    const whole = await invoiceOf(id);
    expect(whole.totalMinor - whole.creditedMinor - whole.paidMinor).toBe(-7700n);
    expect(await booksAgree()).toEqual([]);
  });

  test('changed, it keeps number and payments and says its version; the books take the difference', async () => {
    const { id, link, number } = await sentInvoice(house, plainPaper(house, inParts()));
    await recordReceived(house.owner, id, received(4000n));
    const dearer = plainPaper(house, { ...inParts(), note: 'Now with hinges' });
    const [line] = dearer.lines;
    await changeInvoice(
      house.owner,
      id,
      { ...dearer, lines: [{ ...(line as NonNullable<typeof line>), quantity: '3' }] },
      1,
      true,
    );
    expect(await invoiceOf(id)).toMatchObject({
      number,
      version: 2,
      totalMinor: 16_500n,
      dueMinor: 12_500n,
      paidMinor: 4000n,
    });
    expect((await outsideBusiness((db) => payerView(db, link)))?.printed).toMatchObject({
      version: 2,
      note: 'Now with hinges',
    });
    await expect(changeInvoice(house.owner, id, dearer, 1, false)).rejects.toMatchObject({
      code: 'draft-changed-elsewhere',
    });
    const cheap = { ...dearer, lines: [{ ...(line as NonNullable<typeof line>), quantity: '0.1' }] };
    await expect(changeInvoice(house.owner, id, cheap, 2, false)).rejects.toMatchObject({ code: 'paper-not-ready' });
    expect(await booksAgree()).toEqual([]);
    const kept = await asSuperuser(workshop.admin, 'select version from invoice_versions where invoice_id = $1', [id]);
    expect(kept).toEqual([{ version: 1 }]);
  });
});

describe('words between the two', () => {
  test('a question goes to the business, its answer to the customer, both onto the timeline', async () => {
    const customer = await addCustomer(house.owner, newCustomer('Asking', { email: `${randomUUID()}@q.example` }));
    const { id, link } = await sentInvoice(house, plainPaper(house, { customerId: customer.id }));
    await askQuestion(link, { text: 'On <Saturday>?', byName: '' }, 'address');
    const [question] = (await invoiceSheet(house.owner, id)).questions;
    await answerQuestion(house.owner, question?.id ?? '', 'Yes, from nine.');
    await answerQuestion(house.owner, question?.id ?? '', 'Twice?');
    await mailEverything();
    const mails = await mailOf(workshop.standIns, customer.email);
    expect(mails.filter(({ text }) => text.includes('Yes, from nine.'))).toHaveLength(1);
    const [toHouse] = (await mailOf(workshop.standIns, house.business.email)).filter(({ subject }) =>
      subject.includes('asks about'),
    );
    expect(toHouse?.text).toContain('On <Saturday>?');
    expect(toHouse?.html).not.toContain('<Saturday>');
    expect((await kinds(id)).filter((kind) => kind === 'question' || kind === 'answer')).toEqual([
      'answer',
      'question',
    ]);
  });

  test('several addresses get a copy each; a text message goes to the phone; a refused number is told', async () => {
    const key = randomUUID().slice(0, 8);
    const customer = await addCustomer(
      house.owner,
      newCustomer('Many', {
        email: `a-${key}@m.example`,
        copies: [`b-${key}@m.example`, `A-${key}@m.example`],
        phone: '(206) 555-0177',
      }),
    );
    const draft = await keptDraft(house, plainPaper(house, { customerId: customer.id }));
    await sendInvoice(house.owner, draft, 1, sendBy('mail', { text: 'Dear both of you' }));
    const texted = await keptDraft(house, plainPaper(house, { customerId: customer.id }));
    await sendInvoice(house.owner, texted, 1, sendBy('text'));
    const refused = await keptDraft(house, plainPaper(house, { customerId: customer.id }));
    await sendInvoice(house.owner, refused, 1, sendBy('text', { phone: '(206) 555-0000' }));
    await mailEverything();
    for (const to of [customer.email, `b-${key}@m.example`])
      expect((await mailOf(workshop.standIns, to)).map(({ text }) => text.includes('Dear both of you'))).toEqual([
        true,
      ]);
    const answer = (await (
      await fetch(`${workshop.standIns}/messages/api/messages?to=${encodeURIComponent('(206) 555-0177')}`)
    ).json()) as { messages: { text: string }[] };
    expect(answer.messages).toHaveLength(1);
    expect(answer.messages[0]?.text).toContain('/i/');
    expect(await kinds(refused)).toContain('mail-failed');
  });

  test('the mail server’s reports: delivered, or come back with the reason; unsigned ones are nobody’s', async () => {
    const { id } = await sentInvoice(house);
    const [message] = await asSuperuser<{ id: string }>(
      workshop.admin,
      'select id from messages where invoice_id = $1',
      [id],
    );
    await mailEverything();
    const tell = (event: string, secret = 'test-mail') => {
      const body = JSON.stringify({
        messageId: `<${message?.id}.${house.business.id}@localhost>`,
        to: 'x',
        event,
        reason: 'The mailbox is full',
      });
      const time = String(Math.floor(Date.now() / 1000));
      return hearMailEvent({ body, time, signature: eventSignature(secret, time, body) });
    };
    expect(await tell('bounced', 'other')).toBe(false);
    expect(await tell('bounced')).toBe(true);
    expect(await tell('delivered')).toBe(true);
    expect((await kinds(id))[0]).toBe('bounced');
  });

  test('reminding: the same press once, never for what is paid', async () => {
    const { id } = await sentInvoice(house);
    const key = randomUUID();
    await remindNow(house.owner, id, key);
    await remindNow(house.owner, id, key);
    const [{ count } = { count: 0 }] = await asSuperuser<{ count: number }>(
      workshop.admin,
      `select count(*)::int from messages where invoice_id = $1 and kind = 'reminder'`,
      [id],
    );
    expect(count).toBe(1);
    await recordReceived(house.owner, id, received(11_000n));
    await expect(remindNow(house.owner, id, randomUUID())).rejects.toMatchObject({ code: 'already-paid' });
  });
});

const GERMAN = { lines: ['Am Wehr 4'], city: 'Weilheim', region: '', postalCode: '82362', country: 'DE' };

test('the same totals stand on the page, in the mail, the PDF and the e-invoice, in the customer’s language', async () => {
  const customer = await addCustomer(
    house.owner,
    newCustomer('Petra Lindqvist', {
      email: `${randomUUID()}@de.example`,
      language: 'de',
      currency: 'EUR',
      billing: GERMAN,
    }),
  );
  const lines = [
    newLine(randomUUID(), 'hour', {
      what: 'Geige neu besaitet',
      quantity: '3.5',
      price: '72',
      discount: '10%',
      taxesBy: 'person',
      taxes: [house.taxId],
    }),
  ];
  const { id } = await sentInvoice(
    house,
    plainPaper(house, {
      customerId: customer.id,
      lines,
      discount: '5%',
      fees: [{ id: randomUUID(), name: 'Abholung', amount: '12.5', taxes: [] }],
    }),
  );
  // 252.00 − 25.20 = 226.80; − 11.34 = 215.46; + 12.50; tax 21.546 → 21.55: 249.51
  await mailEverything();
  const printed = printedOf(await invoiceSheet(house.owner, id));
  expect(printed).toMatchObject({ total: 24_951, locale: 'de-DE', currency: 'EUR' });
  const [mail] = await mailOf(workshop.standIns, customer.email);
  expect(mail?.subject).toMatch(/^Rechnung \d+ von Sallow Joinery: 249,51\s€$/);
  expect(mail?.text).toContain('Gesamtbetrag: 249,51');
  const file = join(mkdtempSync(join(tmpdir(), 'dahlia-')), 'x.pdf');
  writeFileSync(file, (await deskInvoicePdf(house.owner, id)).bytes);
  const pdf = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
  for (const words of ['Rechnung', '249,51', '21,55', 'Abholung', '3,5 Std. × 72,00']) expect(pdf).toContain(words);
  const xml = readInvoiceXml((await deskInvoiceXml(house.owner, id)).bytes.toString());
  expect(xml).toMatchObject({
    withTax: 24_951n,
    taxTotal: 2155n,
    currency: 'EUR',
    buyer: { name: 'Petra Lindqvist' },
    seller: { name: 'Sallow Joinery' },
  });
});

describe('the list', () => {
  const ask = (change: Partial<InvoiceAsk>) =>
    searchInvoices(house.owner, { ...EVERYTHING, ...change }).then(({ rows }) => rows);

  test('is searched by number, name, reference and sum, narrowed by all at once, and pages by key', async () => {
    const customer = await addCustomer(house.owner, newCustomer('Wilhelmina Strand', { groups: ['Cellists'] }));
    const paper = plainPaper(house, { customerId: customer.id, reference: 'Viola 1931_x' });
    const draft = await keptDraft(house, paper);
    const number = await sendInvoice(house.owner, draft, 1, 'link');
    const found = async (change: Partial<InvoiceAsk>) => (await ask(change)).map(({ id }) => id).includes(draft);
    for (const words of [number, 'strand', 'viola 1931_', '110.00', 'wilhel strand'])
      expect(await found({ words }), words).toBe(true);
    for (const words of ['viola%x', '111.00', 'nobody']) expect(await found({ words }), words).toBe(false);
    expect(await found({ group: 'Cellists', state: 'sent', least: '110', most: '110', currency: 'USD' })).toBe(true);
    for (const change of [{ state: 'paid' }, { group: 'Others' }, { least: '110.01' }, { to: '2020-01-01' }] as const)
      expect(await found({ group: 'Cellists', ...change })).toBe(false);
    const seen: string[] = [];
    for (let after: { key: string; id: string } | null = null; ; ) {
      const page: ListPage = await searchInvoices(
        house.owner,
        { ...EVERYTHING, sort: 'total', descending: false },
        after,
      );
      seen.push(...page.rows.map(({ id }) => id));
      if (!page.next) break;
      after = page.next;
    }
    expect(new Set(seen).size).toBe(seen.length);
    const [{ count } = { count: 0 }] = await asSuperuser<{ count: number }>(
      workshop.admin,
      `select count(*)::int from invoices where stage <> 'draft' and business_id = $1`,
      [house.business.id],
    );
    expect(seen.length).toBe(count);
  });

  test('counts and sums of every state agree with the rows', async () => {
    const { counts } = await listOverview(house.owner);
    for (const { state, count, sums } of counts) {
      const rows: { dueMinor: bigint; totalMinor: bigint; currency: string }[] = [];
      for (let after: { key: string; id: string } | null = null; ; ) {
        const page: ListPage = await searchInvoices(house.owner, { ...EVERYTHING, state }, after);
        rows.push(...page.rows);
        if (!page.next) break;
        after = page.next;
      }
      expect(rows.length, state).toBe(count);
      const open = !['draft', 'paid', 'cancelled'].includes(state);
      const sum = rows
        .filter(({ currency }) => currency === 'USD')
        .reduce((all, row) => all + (open ? row.dueMinor : row.totalMinor), 0n);
      expect(sum, state).toBe(sums.USD ?? 0n);
    }
  });

  test('many at once: each that cannot be is named, the others are done; files hold them all', async () => {
    const [one, two] = [await sentInvoice(house), await sentInvoice(house)];
    await recordReceived(house.owner, two.id, received(11_000n));
    const key = randomUUID();
    expect(await remindMany(house.owner, [one.id, two.id], key)).toMatchObject({ done: 1, refused: [{ id: two.id }] });
    const csv = await exportMany(house.owner, [one.id, two.id], 'csv');
    expect(csv.bytes.toString().trim().split('\r\n')).toHaveLength(3);
    const zip = await exportMany(house.owner, [one.id, two.id], 'ubl');
    expect(zip.bytes.includes(`${one.number}.xml`)).toBe(true);
    expect((await exportMany(house.owner, [one.id, two.id], 'pdf')).bytes.subarray(0, 5).toString()).toBe('%PDF-');
    expect(await cancelMany(house.owner, [one.id, two.id], 'x', false)).toMatchObject({ done: 1 });
    await saveList(house.owner, 'Late cellists', { ...EVERYTHING, state: 'overdue' });
    await saveList(house.owner, 'late cellists', { ...EVERYTHING, state: 'paid' });
    expect((await listOverview(house.owner)).saved).toMatchObject([
      { name: 'late cellists', asked: { state: 'paid' } },
    ]);
  });
});

test('a statement begins where the last one ended, and ends with what is owed', async () => {
  const own = await foundHouse('Stating');
  const { id } = await sentInvoice(own, plainPaper(own, inParts()));
  await sentInvoice(own);
  await recordReceived(own.owner, id, received(1000n));
  await creditInvoice(own.owner, id, { amountMinor: 500n, reason: 'x', tell: false, requestKey: randomUUID() });
  const statement = await customerStatement(own.owner, own.customerId, { from: '', to: '', currency: '' });
  expect(statement).toMatchObject({ openingMinor: 0, closingMinor: 20_500 });
  expect(statement.lines.at(-1)?.balanceMinor).toBe(20_500n);
  expect(statement.ages.notDue).toBe(20_500n);
  const after = await customerStatement(own.owner, own.customerId, {
    from: '2099-01-01',
    to: '2099-12-31',
    currency: 'USD',
  });
  expect(after).toMatchObject({ openingMinor: 20_500, closingMinor: 20_500, lines: [] });
});
