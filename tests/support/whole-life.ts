/** A customer who has done everything that customers do, and what is looked at of them: for tests of what is kept, taken along and forgotten. */
import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import { type CalendarDate } from '@/core/dates/calendar-date';
import { ALL_HOOK_KINDS } from '@/core/hook/events';
import { EVERYTHING } from '@/core/invoice/ask';
import { sendBy } from '@/core/invoice/send-with';
import { GOES_AS_USUAL } from '@/core/item/item';
import { NO_ADDRESS } from '@/core/place/address';
import { ledgerTroubles } from '@/db/ledger';
import { inBusiness } from '@/db/transaction';
import { counterDesk, handOverAtCounter } from '@/flows/counter/collect';
import { fetchByInvoice, keepItemDigital, thingsByInvoice } from '@/flows/digital/grants';
import { acceptDispute } from '@/flows/dispute/answer-dispute';
import { lookForDisputes } from '@/flows/dispute/hear-disputes';
import { programContext } from '@/flows/door/program';
import { deskInvoicePdf } from '@/flows/file/kept-files';
import { storeFile } from '@/flows/file/store-file';
import { addHook } from '@/flows/hook/hooks';
import { answerQuestion } from '@/flows/invoice/answer-question';
import { checkBulk } from '@/flows/invoice/bulk-invoices';
import { cancelInvoice } from '@/flows/invoice/cancel-invoice';
import { askQuestion, decideFile } from '@/flows/invoice/consent';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { endRecurring, startRecurring } from '@/flows/invoice/recurring';
import { saveList } from '@/flows/invoice/search-invoices';
import { sendRequest } from '@/flows/offer/requests';
import { correctRecipient, putOnPaper } from '@/flows/parcel/pack';
import { packDesk } from '@/flows/parcel/to-pack';
import { recordReceived } from '@/flows/payment/receive-payment';
import { refundPayment } from '@/flows/payment/refund-payment';
import { takePayment } from '@/flows/payment/take-payment';
import { cancelPlan } from '@/flows/plan/change-plan';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { addCustomer, mergeCustomers } from '@/flows/records/customers';
import { askBackByInvoice, refuseReturn, returnsDesk } from '@/flows/returning/returns';
import { asSuperuser } from './database';
import { decideDispute, disputePayment } from './disputes';
import { playMinute } from './minute';
import { paidOrder, placedOffer } from './offers';
import { buyAll, GULL_POINT, payByTransfer, postedItem, readyToPack, soldToPost } from './parcels';
import { planTerms, runningPlan } from './plans';
import { backOf } from './refunds';
import { cardToken, type House, keptDraft, plainPaper, sentInvoice, type Workshop } from './workshop';

/** A Monday. */
export const DAY = '2027-03-01' as CalendarDate;

export const pdfText = (bytes: Buffer): string =>
  execFileSync('pdftotext', ['-layout', '-', '-'], { input: bytes, encoding: 'utf8' });

export const quill = (email: string) =>
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

/** What an archive holds, unpacked: each file by its path, PDFs as text. */
export async function unpacked(archive: { parts: AsyncIterable<Uint8Array> }): Promise<Map<string, string>> {
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

/** What can be done and seen of the house of now. */
export function lives(workshop: Workshop, now: () => House) {
  const of = <T>(work: Parameters<typeof inBusiness<T>>[1]) => inBusiness(programContext(now().business.id), work);
  const sound = async () => expect(await of(ledgerTroubles)).toEqual([]);
  const rows = <Row extends object = Record<string, unknown>>(text: string, values: unknown[] = [now().business.id]) =>
    asSuperuser<Row>(workshop.admin, text, values);

  /** The tables of businesses, with their columns. */
  const tables = () =>
    rows<{ name: string; binary: string[] }>(
      `select c.table_name as name, array(select b.column_name::text from information_schema.columns b where b.table_schema = 'public'
         and b.table_name = c.table_name and b.data_type = 'bytea') as binary
       from information_schema.columns c join information_schema.tables t on t.table_schema = 'public' and t.table_name = c.table_name and t.table_type = 'BASE TABLE'
       where c.table_schema = 'public' and c.column_name = 'business_id' order by 1`,
      [],
    );

  const pay = async (link: string, amountMinor = 11_000n) =>
    takePayment(
      link,
      { attemptKey: randomUUID(), cardToken: await cardToken(workshop.standIns, 'corvid-good'), amountMinor },
      'a',
    );
  const paymentOf = async (invoiceId: string): Promise<string> =>
    (await rows<{ id: string }>('select id from payments where invoice_id = $1', [invoiceId]))[0]?.id ?? '';

  /** A parcel that was delivered against a signature, and one that lay on the paper when its sale was cancelled. */
  async function parcelsFor(id: string): Promise<void> {
    await readyToPack(now(), { service: 'steady', signature: true, mostGrams: 0 });
    const { id: itemId } = await postedItem(now(), 'Tall case');
    const item = { id: itemId, name: 'Case for Quill' };
    const pack = async () => {
      const { blocked } = await packDesk(now().owner, '');
      for (const row of blocked.rows) {
        const address = { ...GULL_POINT, lines: ['9 Quill Yard'] };
        await correctRecipient(now().owner, row.id, { ...row.recipient, address });
        await putOnPaper(now().owner, [row.id]);
      }
    };
    await soldToPost(now(), { id }, item);
    await pack();
    const [parcelId = ''] = await buyAll(now());
    await rows(
      `with seen as (insert into parcel_scans (business_id, parcel_id, at, scan, place) values ($1, $2, now(), 'delivered', 'Quillham, at the door'))
       update parcels set proof = '{"name": "A. Quill", "at": "2027-02-01T10:00:00Z", "place": "Quillham", "strokes": ""}', state = 'delivered', act_at = null
       where business_id = $1 and id = $2`,
      [now().business.id, parcelId],
    );
    const cancelled = await soldToPost(now(), { id }, item, { paid: false, paper: { shipsFirst: true } });
    await pack();
    await cancelInvoice(now().owner, cancelled.id, 'Quill has one', false);
  }

  /** Something fetched by somebody with a hand, and something downloaded. */
  async function fetchedBy(id: string): Promise<void> {
    const fetched = await postedItem(now(), 'Tall stand', { going: { ...GOES_AS_USUAL, handed: 'collected' } });
    const read = await postedItem(now(), 'Tall tracks', { kind: 'digital', going: GOES_AS_USUAL });
    const file = await storeFile(now().owner, 'tracks.csv', 'digital', Buffer.from('At,Track\n1,2\n'));
    const limits = { mostDownloads: null, days: null };
    await keepItemDigital(now().owner, read.id, { fileId: file.id, words: 'Tall words', ...limits });
    const paper = { delivery: null };
    const { id: fetchedId, link: fetchedLink } = await soldToPost(
      now(),
      { id },
      { id: fetched.id, name: 'Stand for Quill' },
      { paid: false, paper },
    );
    await payByTransfer(now(), fetchedId, 8);
    const [waits] = (await counterDesk(now().owner, '')).rows;
    await handOverAtCounter(now().owner, randomUUID(), waits?.id ?? '', {
      ...{ name: 'Quentin Quillfeather', strokes: 'M1 2 L30 20' },
      lines: [{ line: 0, quantity: '1' }],
    });
    const words = 'Quill wants another';
    await askBackByInvoice(fetchedLink, randomUUID(), {
      ...{ reason: 'other', words, fileId: null, lines: [{ line: 0, quantity: '1' }] },
    });
    const [back] = await returnsDesk(now().owner);
    await refuseReturn(now().owner, back?.id ?? '', 'Quill had two already');
    const sale = await soldToPost(now(), { id }, { id: read.id, name: 'Tracks for Quill' }, { paid: false, paper });
    await payByTransfer(now(), sale.id, 8);
    const [thing] = await thingsByInvoice(sale.link, 'en-US');
    await fetchByInvoice(sale.link, thing?.id ?? '');
  }

  /** A customer who has done everything that customers do, each time with words of their own; all of it is over. */
  async function wholeLife(): Promise<{ id: string; email: string; paidId: string; offerId: string; otherId: string }> {
    const email = `quill-${randomUUID().slice(0, 8)}@owl.example`;
    const { id } = await addCustomer(now().owner, quill(email));
    const twin = await addCustomer(now().owner, { ...quill(`2-${email}`), name: 'Z. Quillfeather' });
    await addHook(now().owner, { url: 'http://127.0.0.1:9/nobody', kinds: ALL_HOOK_KINDS });
    const file = await storeFile(now().owner, 'quill.csv', 'attachment', Buffer.from('For,Quill\nalone,1\n')).catch(
      () => null,
    );
    const paper = plainPaper(now(), {
      customerId: id,
      title: 'Quill cabinet',
      reference: 'QUILL-7',
      note: 'For Zephyrine',
      memo: 'Quill memo',
      files: file ? [{ ...file, approve: true }] : [],
    });
    const lines = paper.lines.map((line) => ({ ...line, what: 'Cabinet for Quill', note: 'as Quill asked' }));
    const paid = await sentInvoice(now(), { ...paper, lines });
    if (file)
      await decideFile(paid.link, file.id, { decision: 'approved', comment: 'Quill likes it', byName: 'Ann Quill' });
    await askQuestion(paid.link, { text: 'Is it for Quill?', byName: '' }, 'a');
    const [question] = (await invoiceSheet(now().owner, paid.id)).questions;
    await answerQuestion(now().owner, question?.id ?? '', 'Yes, Zephyrine.');
    await pay(paid.link);
    await refundPayment(now().owner, await paymentOf(paid.id), backOf(1000n, { reason: 'Quill was overcharged' }));
    const cancelled = await sentInvoice(now(), { ...paper, lines, files: [] });
    await cancelInvoice(now().owner, cancelled.id, 'Quill changed her mind', true);
    const byHand = await sentInvoice(now(), { ...paper, lines, files: [], customerId: twin.id });
    await recordReceived(now().owner, byHand.id, {
      amountMinor: 11_000n,
      method: 'transfer',
      reference: 'From Quill',
      receivedOn: '',
      requestKey: randomUUID(),
    });
    await keptDraft(now(), { ...paper, lines, files: [] });
    const disputed = await sentInvoice(now(), { ...paper, lines, files: [] });
    await pay(disputed.link);
    await disputePayment(workshop, await paymentOf(disputed.id));
    await lookForDisputes(programContext(now().business.id));
    const [dispute] = await rows<{ id: string }>('select id from disputes where business_id = $1');
    await acceptDispute(now().owner, dispute?.id ?? '');
    await decideDispute(
      workshop,
      (await rows<{ key: string }>('select key from disputes where business_id = $1'))[0]?.key ?? '',
      false,
    );
    await lookForDisputes(programContext(now().business.id));
    await asSuperuser(workshop.admin, `update disputes set words = 'Quill never said so' where business_id = $1`, [
      now().business.id,
    ]);

    const fields = [field('Left or right?')];
    const offer = await placedOffer(now(), {
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
    const page = await placedOffer(now(), { prices: { USD: '40' } });
    const filled = { name: 'Zephyrine Quillfeather' };
    await sendRequest(now().owner, page.id, {
      toName: 'Zephyrine Quillfeather',
      toAddress: email,
      filled,
      locked: true,
      way: 'mail',
      words: 'Dear Quill',
    });
    const voucher = await placedOffer(now(), { kind: 'open', ownAmount: true, title: 'A voucher', voucher: true });
    const gift = { toName: 'Ann Quill', toEmail: `ann-${email}`, on: '', message: 'From Zephyrine' };
    await paidOrder(workshop, voucher.called, { amount: '50', name: 'Zephyrine Quillfeather', email, gift });

    const plan = await runningPlan(
      now(),
      workshop.standIns,
      planTerms(now(), DAY, { name: 'Quill club' }),
      undefined,
      'Zephyrine Quillfeather',
    );
    await cancelPlan(now().owner, plan.id, false);
    const draft = await keptDraft(now(), { ...paper, lines, files: [] });
    const recurringId = await startRecurring(now().owner, draft, {
      name: 'Quill rent',
      makes: 'draft',
      schedule: { unit: 'year', every: 1, start: '2040-01-01' as never, ends: 'never' },
    });
    await endRecurring(now().owner, recurringId as unknown as string);
    await checkBulk(now().owner, draft, 'Many', { customerIds: [id], group: '', rows: [] }, sendBy('mail'));
    await saveList(now().owner, 'Quillfeather’s', { ...EVERYTHING, words: 'quillfeather' });
    await saveList(now().owner, 'Paid', { ...EVERYTHING, state: 'paid' });
    await parcelsFor(id);
    await fetchedBy(id);
    await mergeCustomers(now().owner, id, twin.id);
    await mergeCustomers(now().owner, id, plan.customerId);
    expect(await playMinute()).toEqual([]);
    for (const message of await rows<{ id: string }>(
      `select id from messages where business_id = $1 and state = 'queued'`,
    ))
      await handOverMessage(now().business.id, message.id);
    await deskInvoicePdf(now().owner, paid.id);
    return { id, email, paidId: paid.id, offerId: offer.id, otherId: now().customerId };
  }
  return { of, sound, rows, tables, pay, paymentOf, wholeLife };
}
