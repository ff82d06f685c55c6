import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { describe, expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone, instantInZone } from '@/core/dates/zone';
import { sendBy } from '@/core/invoice/send-with';
import { newLine, type Paper } from '@/core/paper/paper';
import { invoiceById } from '@/db/invoices';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { storeFile } from '@/flows/file/store-file';
import { recordReceived } from '@/flows/payment/receive-payment';
import { addCustomer, changeCustomer } from '@/flows/records/customers';
import { asSuperuser } from '../../../tests/support/database';
import { playMinute } from '../../../tests/support/minute';
import { foundHouse, keptDraft, plainPaper, sentInvoice, sharedWorkshop } from '../../../tests/support/workshop';
import { bulkSheet, checkBulk, runBulk, sendBulk } from './bulk-invoices';
import { saveDraft, startInvoice } from './draft';
import { invoiceSheet } from './invoice-sheet';
import {
  endRecurring,
  makeDueRecurring,
  pauseRecurring,
  recurringSheet,
  repaperRecurring,
  replanRecurring,
  resumeRecurring,
  skipNext,
  startRecurring,
} from './recurring';
import { remindDue } from './remind';
import { keepAsTemplate, templateNames } from './templates';
import { dropSendingTime, sendScheduled, setSendingTime } from './timed-sending';

const workshop = await sharedWorkshop();
const house = await foundHouse();

const zone = 'America/Los_Angeles';
const today = () => dateInZone(new Date(), zone);
/** Noon of a day so many days from now, in the business's zone. */
const noon = (days: number) => instantInZone(addDays(today(), days), '12:00', zone);
const messages = (invoiceId: string, kind: string) =>
  asSuperuser<{ id: string }>(workshop.admin, 'select id from messages where invoice_id = $1 and kind = $2', [
    invoiceId,
    kind,
  ]);
/** A small picture as a file of an invoice. */
const keptPicture = async () => {
  const bytes = await sharp({ create: { width: 9, height: 9, channels: 3, background: '#8a6d1f' } })
    .png()
    .toBuffer();
  const { id, name, type, size } = await storeFile(house.owner, 'plan.png', 'attachment', bytes);
  return { id, name, type, size };
};
const stageOf = async (id: string) => (await invoiceSheet(house.owner, id)).invoice.stage;

describe('on a day to come', () => {
  test('a draft goes out by itself once, however often it is looked for; a change or a second thought keeps it', async () => {
    const [one, changed, dropped] = [await keptDraft(house), await keptDraft(house), await keptDraft(house)];
    const on = `${addDays(today(), 2)}T09:30`;
    for (const id of [one, changed, dropped])
      await setSendingTime(house.owner, id, { revision: 1, how: sendBy('mail'), on });
    await saveDraft(house.owner, changed, plainPaper(house, { note: 'x' }), 1);
    await dropSendingTime(house.owner, dropped);
    await sendScheduled(programContext(house.business.id, noon(1)));
    expect(await stageOf(one)).toBe('draft');
    await Promise.all([
      sendScheduled(programContext(house.business.id, noon(3))),
      sendScheduled(programContext(house.business.id, noon(3))),
    ]);
    expect([await stageOf(one), await stageOf(changed), await stageOf(dropped)]).toEqual(['sent', 'draft', 'draft']);
    expect(await messages(one, 'invoice')).toHaveLength(1);
  });

  test('one that can no longer be sent stays a draft and says why', async () => {
    const customer = await addCustomer(house.owner, newCustomer('Fleeting', { email: 'f@x.example' }));
    const id = await keptDraft(house, plainPaper(house, { customerId: customer.id }));
    await setSendingTime(house.owner, id, { revision: 1, how: sendBy('mail'), on: `${addDays(today(), 1)}T09:00` });
    const { id: _, ...fields } = customer;
    await changeCustomer(house.owner, customer.id, { ...fields, email: '' });
    await sendScheduled(programContext(house.business.id, noon(2)));
    const [line] = (await invoiceSheet(house.owner, id)).timeline;
    expect(line?.event).toMatchObject({ kind: 'not-sent-in-time', why: 'customer-without-email' });
  });

  test.each([
    ['2020-01-01T09:00', 'on'],
    ['2026-02-30T09:00', 'on'],
    ['soon', 'on'],
  ])('%s is no time to send', async (on, field) => {
    await expect(
      setSendingTime(house.owner, await keptDraft(house), { revision: 1, how: sendBy('mail'), on }),
    ).rejects.toMatchObject({
      fields: [{ field }],
    });
  });
});

describe('reminders', () => {
  const reminded = (reminders: number[], more: Partial<Paper> = {}) =>
    sentInvoice(house, plainPaper(house, { due: { kind: 'days', days: 10 }, reminders, ...more }));

  test('go out on their day, once, by however many workers; several late ones as one', async () => {
    const { id } = await reminded([-3, 2, 5]);
    await remindDue(programContext(house.business.id, noon(6)));
    expect(await messages(id, 'reminder')).toHaveLength(0);
    await Promise.all([1, 2, 3, 4].map(() => remindDue(programContext(house.business.id, noon(7)))));
    expect(await messages(id, 'reminder')).toHaveLength(1);
    await remindDue(programContext(house.business.id, noon(40)));
    expect(await messages(id, 'reminder')).toHaveLength(2);
    const states = (await invoiceSheet(house.owner, id)).reminders.map(({ offset, state }) => [offset, state]);
    expect(states).toEqual([
      [-3, 'sent'],
      [2, 'dropped'],
      [5, 'sent'],
    ]);
  });

  test('never for what was paid meanwhile, and not in the quiet hours', async () => {
    const [paid, open] = [await reminded([1]), await reminded([1])];
    await recordReceived(house.owner, paid.id, {
      amountMinor: 11_000n,
      method: 'cash',
      reference: '',
      receivedOn: '',
      requestKey: randomUUID(),
    });
    const night = instantInZone(addDays(today(), 12), '21:30', zone);
    await remindDue(programContext(house.business.id, night));
    expect(await messages(open.id, 'reminder')).toHaveLength(0);
    await remindDue(programContext(house.business.id, noon(13)));
    expect([(await messages(paid.id, 'reminder')).length, (await messages(open.id, 'reminder')).length]).toEqual([
      0, 1,
    ]);
  });
});

describe('coming again', () => {
  const monthly = (start: CalendarDate) => ({ unit: 'month', every: 1, start, ends: 'never' }) as const;
  const runs = async (id: string) => (await recurringSheet(house.owner, id)).runs;

  test('each date is made once, whoever looks; what was missed comes later, with its own month in the text', async () => {
    const start = addDays(today(), 1);
    const draft = await keptDraft(house, plainPaper(house, { title: 'Rent {month}' }));
    const id = await startRecurring(house.owner, draft, { name: 'Rent', makes: 'send', schedule: monthly(start) });
    await makeDueRecurring(programContext(house.business.id, noon(0)));
    expect(await runs(id)).toHaveLength(0);
    await Promise.all([1, 2, 3].map(() => makeDueRecurring(programContext(house.business.id, noon(40)))));
    const made = await runs(id);
    expect(made).toHaveLength(2);
    expect(made.every(({ number }) => number !== null)).toBe(true);
    const titles = await Promise.all(
      made.map(async ({ invoiceId }) => (await invoiceSheet(house.owner, invoiceId ?? '')).invoice.printed?.title),
    );
    expect(new Set(titles).size).toBe(2);
  });

  test('what its last paper was made to say, the next one says, for its own customer', async () => {
    const start = addDays(today(), 1);
    const id = await startRecurring(house.owner, await keptDraft(house), {
      name: 'Care',
      makes: 'draft',
      schedule: monthly(start),
    });
    await makeDueRecurring(programContext(house.business.id, noon(2)));
    const other = await addCustomer(house.owner, newCustomer('Somebody else', { email: 'else@x.example' }));
    const said = await keptDraft(house, plainPaper(house, { note: 'A new price from now on', customerId: other.id }));
    await repaperRecurring(house.owner, id, said);
    await makeDueRecurring(programContext(house.business.id, noon(40)));
    const papers = await Promise.all(
      (await runs(id)).map(async ({ invoiceId }) => (await invoiceSheet(house.owner, invoiceId ?? '')).invoice.paper),
    );
    expect(papers.map(({ note }) => note).sort()).toEqual(['', 'A new price from now on']);
    expect(papers.map(({ customerId }) => customerId)).toEqual([house.customerId, house.customerId]);
  });

  test('paused, skipped, replanned and ended', async () => {
    const start = addDays(today(), 1);
    const draft = await keptDraft(house);
    const id = await startRecurring(house.owner, draft, {
      name: 'Weekly',
      makes: 'draft',
      schedule: { ...monthly(start), unit: 'week' },
    });
    await skipNext(house.owner, id);
    await makeDueRecurring(programContext(house.business.id, noon(2)));
    expect(await runs(id)).toHaveLength(0);
    await pauseRecurring(house.owner, id);
    await makeDueRecurring(programContext(house.business.id, noon(9)));
    expect(await runs(id)).toHaveLength(0);
    await resumeRecurring(house.owner, id);
    await makeDueRecurring(programContext(house.business.id, noon(9)));
    expect((await runs(id)).map(({ nominal, number }) => [nominal, number])).toEqual([[addDays(start, 7), null]]);
    await replanRecurring(house.owner, id, {
      name: 'Weekly',
      makes: 'draft',
      schedule: { ...monthly(addDays(start, 20)), unit: 'week', ends: { after: 1 } },
    });
    expect((await recurringSheet(house.owner, id)).coming).toHaveLength(1);
    await makeDueRecurring(programContext(house.business.id, noon(30)));
    expect((await recurringSheet(house.owner, id)).repeat.state).toBe('finished');
    await endRecurring(house.owner, id);
    await expect(
      startRecurring(house.owner, draft, {
        name: 'Never',
        makes: 'draft',
        schedule: { ...monthly(start), ends: { on: addDays(start, -1) } },
      }),
    ).rejects.toMatchObject({ code: 'no-dates' });
  });

  test('one that cannot be sent waits as a draft, and the next comes all the same', async () => {
    const customer = await addCustomer(house.owner, newCustomer('No Mail'));
    const draft = await keptDraft(house, plainPaper(house, { customerId: customer.id }));
    const id = await startRecurring(house.owner, draft, {
      name: 'Unsent',
      makes: 'send',
      schedule: monthly(addDays(today(), 1)),
    });
    await makeDueRecurring(programContext(house.business.id, noon(33)));
    expect((await runs(id)).map(({ number, trouble }) => [number, trouble !== null])).toEqual([
      [null, true],
      [null, true],
    ]);
  });
});

describe('one invoice to many', () => {
  const people = async (count: number, group: string) => {
    for (let at = 0; at < count; at++)
      await addCustomer(
        house.owner,
        newCustomer(`${group} ${at}`, { email: `${randomUUID()}@b.example`, groups: [group] }),
      );
  };
  const nobody = { customerIds: [], group: '', rows: [] };

  test('each with a number of their own; those refused are listed, mended and sent alone; twice pressed sends once', async () => {
    await people(5, 'Choir');
    const mute = await addCustomer(house.owner, newCustomer('Mute', { groups: ['Choir'] }));
    const draft = await keptDraft(house);
    const id = await checkBulk(house.owner, draft, 'Tickets', { ...nobody, group: 'Choir' }, sendBy('mail'));
    const before = await bulkSheet(house.owner, id);
    expect(before.rows.filter(({ state }) => state === 'ready')).toHaveLength(5);
    expect(before.rows.find(({ state }) => state === 'refused')).toMatchObject({
      customer: 'Mute',
      reason: 'No e-mail address on file',
    });
    await sendBulk(house.owner, id);
    await sendBulk(house.owner, id);
    await Promise.all([runBulk(house.business.id, id), runBulk(house.business.id, id)]);
    const { bulk, rows } = await bulkSheet(house.owner, id);
    expect(bulk.state).toBe('done');
    const numbers = rows.flatMap(({ number }) => (number ? [Number(number)] : [])).sort((a, b) => a - b);
    expect(numbers).toEqual(numbers.map((_, at) => (numbers[0] ?? 0) + at));
    expect(numbers).toHaveLength(5);
    const { id: _, ...fields } = mute;
    await changeCustomer(house.owner, mute.id, { ...fields, email: 'now@b.example' });
    await sendBulk(house.owner, id, true);
    await runBulk(house.business.id, id);
    expect((await bulkSheet(house.owner, id)).rows.every(({ state }) => state === 'sent')).toBe(true);
  });

  test('the draft has done its work once they are sent, unless it was written on since; files come along where wanted', async () => {
    await people(1, 'Bass');
    const files = [{ ...(await keptPicture()), approve: false }];
    const there = async (id: string) =>
      readBusiness(programContext(house.business.id), (db) => invoiceById(db, id)).then((invoice) => invoice !== null);
    const sentWith = async (withFiles: boolean, change = false) => {
      const draft = await keptDraft(house, plainPaper(house, { files, memo: 'Only for us', reference: 'Theirs' }));
      const to = { ...nobody, group: 'Bass' };
      const id = await checkBulk(house.owner, draft, 'Rehearsal', to, sendBy('mail'), withFiles);
      expect(await there(draft)).toBe(true);
      if (change) await saveDraft(house.owner, draft, plainPaper(house, { note: 'since' }), 1);
      await sendBulk(house.owner, id);
      await runBulk(house.business.id, id);
      const [row] = (await bulkSheet(house.owner, id)).rows;
      const { paper } = (await invoiceSheet(house.owner, row?.invoiceId ?? '')).invoice;
      return { left: await there(draft), paper };
    };
    expect(await sentWith(true)).toMatchObject({ left: false, paper: { files, memo: '', reference: '' } });
    expect(await sentWith(false, true)).toMatchObject({ left: true, paper: { files: [] } });

    const draft = await keptDraft(house, plainPaper(house, { files }));
    const paperOf = async (from: Parameters<typeof startInvoice>[1]) =>
      (await invoiceSheet(house.owner, await startInvoice(house.owner, from))).invoice.paper;
    expect((await paperOf({ invoiceId: draft })).files).toEqual([]);
    expect((await paperOf({ invoiceId: draft, withFiles: true })).files).toEqual(files);
    for (const withFiles of [true, false]) {
      const called = `Template ${withFiles}`;
      await keepAsTemplate(house.owner, called, plainPaper(house, { files }), withFiles);
      const template = (await templateNames(house.owner)).find((one) => one.name === called);
      expect((await paperOf({ templateId: template?.id ?? '' })).files).toEqual(withFiles ? files : []);
    }
  });

  test('its days go to everybody, and nobody else’s people are asked to approve', async () => {
    await people(1, 'Alto');
    const file = await keptPicture();
    const approvers = [{ id: randomUUID(), name: 'Pia', email: 'pia@vane.example' }];
    const dueOn = addDays(dateInZone(new Date(), house.business.zone), 9);
    const draft = await keptDraft(
      house,
      plainPaper(house, {
        files: [{ ...file, approve: true, approvers }],
        due: { kind: 'date', date: dueOn },
        serviceFrom: '2026-01-02',
      }),
    );
    const id = await checkBulk(house.owner, draft, 'Concert', { ...nobody, group: 'Alto' }, sendBy('mail'));
    await sendBulk(house.owner, id);
    await runBulk(house.business.id, id);
    const [row] = (await bulkSheet(house.owner, id)).rows;
    const { invoice } = await invoiceSheet(house.owner, row?.invoiceId ?? '');
    expect(invoice.printed).toMatchObject({ dueOn, serviceFrom: '2026-01-02' });
    expect(invoice.paper.files).toEqual([{ ...file, approve: true }]);
    // Begun again later, the days are left behind.
    const again = await invoiceSheet(house.owner, await startInvoice(house.owner, { invoiceId: invoice.id }));
    expect(again.invoice.paper).toMatchObject({ due: { kind: 'days', days: 14 }, serviceFrom: '' });
  });

  test('ticked twice, and in the group as well, is one invoice; each row of a file is one of its own', async () => {
    const both = await addCustomer(house.owner, newCustomer('Both', { email: 'both@b.example', groups: ['Tenors'] }));
    await people(2, 'Tenors');
    const row = { customer: 'both@b.example', own: {} };
    const to = { customerIds: [both.id, both.id], group: 'Tenors', rows: [row, row] };
    const { rows } = await bulkSheet(
      house.owner,
      await checkBulk(house.owner, await keptDraft(house), '', to, sendBy('mail')),
    );
    expect(rows.map(({ customer }) => customer).sort()).toEqual(['Both', 'Both', 'Both', 'Tenors 0', 'Tenors 1']);
  });

  test('rows of a file have their own quantities; who is not on file is named', async () => {
    const lines = [
      newLine(randomUUID(), 'piece', { what: 'Seat', price: '10' }),
      newLine(randomUUID(), 'piece', { what: 'Cushion', price: '1' }),
    ];
    const draft = await keptDraft(house, plainPaper(house, { lines, customerId: null }));
    const rows = [
      {
        customer: 'PERPETUA@vane.example',
        own: { lines: { 0: { quantity: '3' }, 1: { quantity: '0' } }, reference: 'Row F' },
      },
      { customer: 'Nobody At All', own: {} },
    ];
    const id = await checkBulk(house.owner, draft, '', { ...nobody, rows }, sendBy('mail'));
    await sendBulk(house.owner, id);
    await runBulk(house.business.id, id);
    const [first, second] = (await bulkSheet(house.owner, id)).rows;
    // 3 × 10.00 and 10 percent tax
    expect(first).toMatchObject({ state: 'sent', totalMinor: 3300n });
    expect((await invoiceSheet(house.owner, first?.invoiceId ?? '')).invoice.printed).toMatchObject({
      reference: 'Row F',
      total: 3300,
    });
    expect(second).toMatchObject({ state: 'refused', reason: 'Nobody on file is “Nobody At All”' });
  });
});

test('the minute goes on with the others where one business’s work fails', async () => {
  const broken = await foundHouse('Broken');
  const { id } = await sentInvoice(broken, plainPaper(broken, { due: { kind: 'receipt' }, reminders: [1] }));
  const mine = await sentInvoice(house, plainPaper(house, { due: { kind: 'receipt' }, reminders: [1] }));
  await asSuperuser(workshop.admin, `update invoices set printed = printed - 'payer' where id = $1`, [id]);
  await asSuperuser(workshop.admin, 'update reminders set remind_on = current_date - 3');
  await asSuperuser(workshop.admin, `update businesses set quiet_from = '00:00', quiet_to = '00:00'`);
  const failed = await playMinute();
  expect(failed.map(({ businessId, concern }) => [businessId, concern])).toEqual([[broken.business.id, 'reminders']]);
  expect(await messages(mine.id, 'reminder')).toHaveLength(1);
});
