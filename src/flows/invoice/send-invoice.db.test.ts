import { randomUUID } from 'node:crypto';
import jsQR from 'jsqr';
import sharp from 'sharp';
import { beforeEach, expect, test } from 'vitest';
import { makeReference } from '@/core/bank/reference';
import { newCustomer } from '@/core/customer/customer';
import type { Writing } from '@/core/paper/kept-by';
import { updateBusiness } from '@/db/businesses';
import { invoiceById } from '@/db/invoices';
import { inBusiness, readBusiness } from '@/db/transaction';
import { todayView } from '@/flows/day/today';
import { programContext } from '@/flows/door/program';
import { linkedPayCode } from '@/flows/file/pay-code';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { addCustomer } from '@/flows/records/customers';
import { asSuperuser } from '../../../tests/support/database';
import {
  foundHouse,
  type House,
  keptDraft,
  mailOf,
  plainPaper,
  sentInvoice,
  sharedWorkshop,
} from '../../../tests/support/workshop';
import { discardDraft, saveDraft, startInvoice } from './draft';
import { invoiceSheet } from './invoice-sheet';
import { sendInvoice, sendInvoiceAgain } from './send-invoice';

const workshop = await sharedWorkshop();
let house: House;
beforeEach(async () => {
  house = await foundHouse();
});

const numbers = () =>
  asSuperuser<{ number: string }>(
    workshop.admin,
    `select number from invoices where business_id = $1 and stage = 'sent'`,
    [house.business.id],
  ).then((rows) => rows.map(({ number }) => Number(number)).sort((a, b) => a - b));
const queued = () =>
  asSuperuser<{ id: string; kind: string }>(
    workshop.admin,
    `select id, kind from messages where business_id = $1 and state = 'queued'`,
    [house.business.id],
  );

test('a currency with an account of its own is transferred there, by a code that a banking app reads', async () => {
  const bank = { holder: 'Sallow Joinery', account: '560000408914', bankCode: '', bank: '' };
  const euro = { ...bank, account: 'DE89 3704 0044 0532 0130 00', currency: 'EUR' };
  const keep = (others: readonly (typeof euro)[]) =>
    inBusiness(programContext(house.business.id), (tx) =>
      updateBusiness(tx, { ...house.business, bank: { ...bank, others } }),
    );
  const ways = { ...plainPaper(house).ways, transfer: true };
  const send = (currency: string) => sentInvoice(house, plainPaper(house, { currency, ways }));
  await keep([euro]);
  const { link, number } = await send('EUR');
  const { data, info } = await sharp((await linkedPayCode(link)).bytes)
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const [service, version, , , , holder, iban, sum, , reference] =
    jsQR(new Uint8ClampedArray(data), info.width, info.height)?.data.split('\n') ?? [];
  expect([service, version, holder, iban, sum]).toEqual([
    'BCD',
    '002',
    'Sallow Joinery',
    euro.account.replaceAll(' ', ''),
    'EUR110.00',
  ]);
  expect(reference).toBe(makeReference(number).reference);
  await expect(linkedPayCode((await send('USD')).link)).rejects.toMatchObject({ code: 'not-found' });
  await keep([]);
  const { id } = await send('EUR');
  expect((await invoiceSheet(house.reader, id)).invoice.printed?.ways.transfer?.account).toBe(bank.account);
});

test('fifty sent at once get fifty numbers without a gap', async () => {
  const drafts: string[] = [];
  for (let at = 0; at < 50; at++) drafts.push(await keptDraft(house));
  await Promise.all(drafts.map((id) => sendInvoice(house.owner, id, 1, 'link')));
  expect(await numbers()).toEqual(Array.from({ length: 50 }, (_, at) => at + 1));
}, 60_000);

test('the same click twice sends once, and a failed sending takes no number', async () => {
  const id = await keptDraft(house);
  const answers = await Promise.all([sendInvoice(house.owner, id, 1, 'mail'), sendInvoice(house.owner, id, 1, 'mail')]);
  expect(answers).toEqual(['1', '1']);
  expect((await queued()).length).toBe(1);
  const unready = await keptDraft(house, plainPaper(house, { customerId: null }));
  await expect(sendInvoice(house.owner, unready, 1, 'mail')).rejects.toMatchObject({
    code: 'paper-not-ready',
    fields: [{ field: 'customer' }],
  });
  await sendInvoice(house.owner, await keptDraft(house), 1, 'link');
  expect(await numbers()).toEqual([1, 2]);
});

test('a draft that changed since it was looked at is not sent', async () => {
  const id = await keptDraft(house);
  await saveDraft(house.clerk, id, plainPaper(house, { discount: '50%' }), 1);
  await expect(sendInvoice(house.owner, id, 1, 'mail')).rejects.toMatchObject({ code: 'draft-changed-elsewhere' });
});

test('a draft kept in two windows keeps the first and tells the second', async () => {
  const id = await keptDraft(house);
  const [one, two] = await Promise.allSettled([
    saveDraft(house.owner, id, plainPaper(house, { note: 'one' }), 1),
    saveDraft(house.clerk, id, plainPaper(house, { note: 'two' }), 1),
  ]);
  expect([one.status, two.status].sort()).toEqual(['fulfilled', 'rejected']);
});

test('a window goes on over its own words whose answer was lost, in whatever order they come, and never over another’s', async () => {
  const id = await keptDraft(house);
  const hand = randomUUID();
  const keep = (note: string, revision: number, by: Writing, after: Writing | null = null) =>
    saveDraft(house.owner, id, plainPaper(house, { note }), revision, { by, after });
  const noteNow = async () => (await invoiceSheet(house.owner, id)).invoice.paper.note;
  const elsewhere = { code: 'draft-changed-elsewhere' };
  await keep('half', 1, { hand, step: 1 });
  // The answer never came: the same window still counts from revision 1.
  await keep('half a sentence', 1, { hand, step: 3 });
  // Its last breath, overtaken by the page that was loaded anew.
  const anew = randomUUID();
  await keep('half a sentence.', 2, { hand: anew, step: 1 }, { hand, step: 3 });
  await expect(keep('half a sent', 1, { hand, step: 2 })).rejects.toMatchObject(elsewhere);
  expect(await noteNow()).toBe('half a sentence.');
  const { invoice } = await invoiceSheet(house.owner, id);
  await saveDraft(house.clerk, id, plainPaper(house, { note: 'theirs' }), invoice.revision);
  await expect(keep('mine again', invoice.revision, { hand: anew, step: 2 })).rejects.toMatchObject(elsewhere);
  expect(await noteNow()).toBe('theirs');
});

test('what is typed is kept as typed, even where it is no number yet', async () => {
  const [line] = plainPaper(house).lines;
  const paper = plainPaper(house, {
    lines: [{ ...(line as NonNullable<typeof line>), quantity: '2 and a', price: '1.2.3' }],
    discount: 'ten',
  });
  const id = await keptDraft(house, paper);
  const sheet = await invoiceSheet(house.owner, id);
  expect(sheet.invoice.paper).toEqual(paper);
  expect(sheet.invoice.totalMinor).toBe(0n);
});

test('starting twice without writing opens the same empty draft; thrown away it is gone', async () => {
  const first = await startInvoice(house.owner);
  expect(await startInvoice(house.owner)).toBe(first);
  expect(await startInvoice(house.clerk)).not.toBe(first);
  await discardDraft(house.owner, first);
  await expect(invoiceSheet(house.owner, first)).rejects.toMatchObject({ code: 'not-found' });
});

test('what was sent stays as it was when the customer or the tax changes later', async () => {
  const { id } = await sentInvoice(house);
  await asSuperuser(workshop.admin, `update customers set name = 'Somebody Else' where id = $1`, [house.customerId]);
  await asSuperuser(workshop.admin, `update taxes set rate = 20 where id = $1`, [house.taxId]);
  const invoice = await readBusiness(programContext(house.business.id), (db) => invoiceById(db, id));
  expect(invoice?.printed).toMatchObject({
    payer: { name: 'Perpetua Vane' },
    total: 11_000,
    taxes: [{ rate: '10', amount: 1_000 }],
  });
});

test('the e-mail reaches the mailbox with both parts and the PDF, once, under one Message-ID', async () => {
  const customer = await addCustomer(house.owner, newCustomer('Ödön Ñandú', { email: `${randomUUID()}@post.example` }));
  const { link, number } = await sentInvoice(house, plainPaper(house, { customerId: customer.id }));
  const [message] = await queued();
  await handOverMessage(house.business.id, message?.id ?? '');
  await handOverMessage(house.business.id, message?.id ?? '');
  const mails = await mailOf(workshop.standIns, customer.email);
  expect(mails.length).toBe(1);
  const [mail] = mails;
  expect(mail?.subject).toBe(`Invoice ${number} from Sallow Joinery: $110.00`);
  expect(mail?.text).toContain(`/i/${link}`);
  expect(mail?.html).toContain(`/i/${link}`);
  expect(mail?.html).toContain('Ödön Ñandú');
  expect(mail?.messageId).toContain(message?.id ?? 'none');
  expect(mail?.attachments).toMatchObject([{ filename: `invoice-${number}.pdf`, contentType: 'application/pdf' }]);
});

test('an address that the mail server refuses is told to the business and not tried again', async () => {
  const customer = await addCustomer(house.owner, newCustomer('Gone Away', { email: 'refused@post.example' }));
  const { id } = await sentInvoice(house, plainPaper(house, { customerId: customer.id }));
  const [message] = await queued();
  await handOverMessage(house.business.id, message?.id ?? '');
  expect(await queued()).toEqual([]);
  const view = await todayView(house.owner);
  expect(view.queue[0]).toMatchObject({ kind: 'undelivered', message: { invoiceId: id } });
});

test('a mail server that is busy is asked again later: the message stays queued', async () => {
  const customer = await addCustomer(house.owner, newCustomer('Busy', { email: 'later@post.example' }));
  await sentInvoice(house, plainPaper(house, { customerId: customer.id }));
  const [message] = await queued();
  await expect(handOverMessage(house.business.id, message?.id ?? '')).rejects.toThrow();
  expect((await queued()).length).toBe(1);
});

test('sending again with one key is one e-mail; a paid or unsent invoice is not sent again', async () => {
  const { id } = await sentInvoice(house);
  const key = randomUUID();
  await sendInvoiceAgain(house.owner, id, key);
  await sendInvoiceAgain(house.owner, id, key);
  expect((await queued()).length).toBe(2);
  await expect(sendInvoiceAgain(house.owner, await keptDraft(house), key)).rejects.toMatchObject({
    code: 'invoice-not-sent',
  });
});

test('a customer without an address can be sent a link only', async () => {
  const customer = await addCustomer(house.owner, newCustomer('No Mail'));
  const id = await keptDraft(house, plainPaper(house, { customerId: customer.id }));
  await expect(sendInvoice(house.owner, id, 1, 'mail')).rejects.toMatchObject({ code: 'customer-without-email' });
  expect(await sendInvoice(house.owner, id, 1, 'link')).toBe('1');
  expect(await queued()).toEqual([]);
});
