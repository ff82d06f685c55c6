import { randomUUID } from 'node:crypto';
import { isCalendarDate } from '@/core/dates/calendar-date';
import { brokenRules } from '@/core/einvoice/einvoice';
import { minorDigits } from '@/core/money/currency';
import { decimalText } from '@/core/money/decimal';
import { newLine, type Paper } from '@/core/paper/paper';
import { STANDARD } from '@/core/tax/business-tax';
import { businessById } from '@/db/businesses';
import { customersByWriting } from '@/db/customers';
import { taxesOf } from '@/db/taxes';
import { addToTimeline } from '@/db/timeline';
import { type ReadInvoice, unitOf } from '@/documents/ubl/read';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { readSafely } from '@/flows/file/read-safely';
import { storeFile } from '@/flows/file/store-file';
import { emptyPaper, writeDraft } from './draft';

const figure = (minor: bigint, currency: string): string => decimalText(minor, minorDigits(currency));

/** The lines of an e-invoice as typed on a paper; what it takes off or adds on the whole becomes a discount or fees. */
function paperOfXml(read: ReadInvoice, taxIdOf: (rate: string) => string[]): Partial<Paper> {
  const { figures } = read;
  const { currency } = figures;
  return {
    currency,
    reference: read.reference,
    note: read.note,
    ...(isCalendarDate(read.dueOn) ? { due: { kind: 'date', date: read.dueOn } as const } : {}),
    pricesIncludeTax: false,
    lines: figures.lines.map((line) =>
      newLine(randomUUID(), unitOf(line.unit), {
        what: line.name.slice(0, 500),
        quantity: line.quantity,
        price: line.price,
        discount: line.allowance > 0n ? figure(line.allowance, currency) : '',
        taxesBy: 'person',
        taxes: taxIdOf(line.rate),
        taxClass: STANDARD,
        ...(line.note ? { note: line.note.slice(0, 1000) } : {}),
        ...(isCalendarDate(line.on) ? { on: line.on } : {}),
      }),
    ),
    discount: figures.allowanceTotal > 0n ? figure(figures.allowanceTotal, currency) : '',
    fees: figures.charges.map((charge) => ({
      id: randomUUID(),
      name: charge.reason || 'Charge',
      amount: figure(charge.amount, currency),
      taxes: taxIdOf(charge.rate),
    })),
    exempt:
      figures.groups.length > 0 && figures.groups.every(({ category }) => category === 'E' || category === 'AE')
        ? figures.groups[0]?.reason || 'Exempt'
        : null,
  };
}

/**
 * Reads an e-invoice (UBL 2.1, EN 16931) into a draft. Its sums are checked by the standard's own rules first; taxes are
 * taken from the business's list by their rate.
 *
 * @throws Refusal `not-well-formed` with what is wrong, `file-too-heavy`
 */
export const readEInvoice = desk('ask').run(async (ctx, xml: string): Promise<string> => {
  const read = await readSafely('invoice', xml);
  const broken = brokenRules(read.figures);
  if (broken.length > 0)
    throw new Refusal(
      'not-well-formed',
      broken.map(({ rule, words }) => ({ field: rule, words: `${rule}: ${words}` })),
    );
  return ctx.write(async (tx) => {
    const business = await businessById(tx);
    const taxes = (await taxesOf(tx)).filter(({ retired }) => !retired);
    const taxIdOf = (rate: string) => {
      const tax = rate === '0' ? undefined : taxes.find((one) => one.rate === rate);
      return tax ? [tax.id] : [];
    };
    const customer = (await customersByWriting(tx, [read.buyer])).get(read.buyer.toLowerCase()) ?? null;
    const paper = { ...emptyPaper(business, customer), ...paperOfXml(read, taxIdOf) };
    const id = await writeDraft(tx, business, paper, { revision: 1, origin: 'desk' });
    await addToTimeline(tx, id, { kind: 'made', by: 'import' }, ctx.name);
    return id;
  });
});

/**
 * Begins an invoice from a PDF made elsewhere: the PDF is the document, and the draft asks for its amount.
 *
 * @throws Refusal `file-not-taken`, `file-too-large`
 */
export const bringInPdf = desk('ask').run(async (ctx, name: string, bytes: Buffer): Promise<string> => {
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
    return id;
  });
});
