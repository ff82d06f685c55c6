import { randomUUID } from 'node:crypto';
import { type Customer, newCustomer } from '@/core/customer/customer';
import { MAIL_ADDRESS } from '@/core/customer/mail-address';
import type { EInvoice, Party } from '@/core/einvoice/einvoice';
import { brokenRules } from '@/core/einvoice/rules';
import { paperOfEInvoice, totalDiffers } from '@/core/einvoice/to-paper';
import { newLine, type Paper } from '@/core/paper/paper';
import { isCountryCode } from '@/core/place/address';
import { businessById } from '@/db/businesses';
import { customerByTaxNumber, customersByWriting, insertCustomer } from '@/db/customers';
import { numbersTaken } from '@/db/invoices';
import type { Tx } from '@/db/pool';
import { taxesOf } from '@/db/taxes';
import { addToTimeline } from '@/db/timeline';
import { type Context, desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { readSafely } from '@/flows/file/read-safely';
import { storeFile } from '@/flows/file/store-file';
import { emptyPaper, writeDraft } from './draft';
import { readingOf } from './paper-setting';

/** What came of a file: the draft, and in words what of the file it could not keep. */
export type BroughtIn = { readonly id: string; readonly notKept: readonly string[] };

/** Sums that do not add up are no invoice; what else others leave out keeps nobody from reading theirs. */
const SUMS = new Set(['BR-CO-10', 'BR-CO-11', 'BR-CO-12', 'BR-CO-13', 'BR-CO-14', 'BR-CO-15', 'BR-CO-16']);

/** A buyer as a customer that is added. */
const customerOf = ({ name, email, lines, city, postalCode, region, country, vatId, taxNumber }: Party): Customer => ({
  id: randomUUID(),
  ...newCustomer(name.slice(0, 160), {
    kind: vatId || taxNumber ? 'company' : 'person',
    email: MAIL_ADDRESS.test(email) ? email : '',
    billing: { lines, city, region, postalCode, country: isCountryCode(country) ? country : '' },
    taxNumber: vatId || taxNumber,
  }),
});

/** Who the buyer is: found by tax number, address or name, else added. */
async function buyerOf(tx: Tx, buyer: Party): Promise<{ customer: Customer | null; isNew: boolean }> {
  const number = buyer.vatId || buyer.taxNumber;
  const byNumber = number ? await customerByTaxNumber(tx, number) : null;
  const written = byNumber ? null : await customersByWriting(tx, [buyer.email, buyer.name].filter(Boolean));
  const found = byNumber ?? written?.get(buyer.email.toLowerCase()) ?? written?.get(buyer.name.toLowerCase());
  if (found || !buyer.name) return { customer: found ?? null, isNew: false };
  const customer = customerOf(buyer);
  await insertCustomer(tx, customer);
  return { customer, isNew: true };
}

/**
 * Reads an e-invoice (EN 16931, as UBL or Cross Industry Invoice) into a draft, for its buyer, who is added where nobody of that
 * number, address or name is on file. Sums that do not add up are refused; what the draft cannot keep is told and noted in its memo.
 *
 * @throws Refusal `not-well-formed` with what is wrong, `is-credit-note`, `file-too-heavy`
 */
export const readEInvoice = desk('ask').run(
  async (ctx, bytes: Uint8Array): Promise<BroughtIn> => draftOf(ctx, await readSafely('invoice', bytes)),
);

async function draftOf(ctx: Context, read: EInvoice): Promise<BroughtIn> {
  if (read.kind === 'credit-note') throw new Refusal('is-credit-note');
  const broken = brokenRules(read).filter(({ rule }) => SUMS.has(rule));
  if (broken.length > 0)
    throw new Refusal(
      'not-well-formed',
      broken.map(({ rule, words }) => ({ field: rule, words: `${rule}: ${words}` })),
    );
  return ctx.write(async (tx) => {
    const business = await businessById(tx);
    const { customer, isNew } = await buyerOf(tx, read.buyer);
    const made = paperOfEInvoice(read, {
      name: business.name,
      taxNumber: business.taxNumber,
      locale: business.paperLocale,
      taxes: await taxesOf(tx),
      bank: business.bank,
      numberTaken: (await numbersTaken(tx, [read.number])).has(read.number),
      newId: randomUUID,
    });
    const bare = { ...emptyPaper(business, customer), ...made.paper };
    const { tally } = await readingOf(tx, business, customer, bare);
    const notKept = [
      ...(customer ? [] : ['It names no buyer: choose who pays.']),
      ...(isNew ? [`${read.buyer.name} was not on file, and is now among your customers.`] : []),
      ...made.notKept,
      ...totalDiffers(read, tally.total, business.deskLocale),
    ];
    const memo = [`From the e-invoice ${read.number}.`, ...notKept].join('\n').slice(0, 4000);
    const id = await writeDraft(tx, business, { ...bare, memo }, { revision: 1, origin: 'desk' });
    await addToTimeline(tx, id, { kind: 'made', by: 'import' }, ctx.name);
    return { id, notKept };
  });
}

/**
 * Begins an invoice from a PDF made elsewhere. With an e-invoice inside, that is read; else the PDF is the document, and the
 * draft asks for its amount.
 *
 * @throws Refusal as `readEInvoice`, and `file-not-taken`, `file-too-large`
 */
export const bringInPdf = desk('ask').run(async (ctx, name: string, bytes: Buffer): Promise<BroughtIn> => {
  const read = await readSafely('hybrid', bytes);
  if (read) return draftOf(ctx, read);
  const file = await storeFile(ctx.actor, name, 'document', bytes);
  return ctx.write(async (tx) => {
    const business = await businessById(tx);
    const paper: Paper = {
      ...emptyPaper(business, null),
      elsewhere: { fileId: file.id, name: file.name },
      lines: [newLine(randomUUID(), 'flat', { what: `As in ${file.name}`, taxesBy: 'person', taxes: [] })],
    };
    const id = await writeDraft(tx, business, paper, { revision: 1, origin: 'desk' });
    await addToTimeline(tx, id, { kind: 'made', by: 'import' }, ctx.name);
    return { id, notKept: [] };
  });
});
