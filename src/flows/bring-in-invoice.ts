import { randomUUID } from 'node:crypto';
import { isCalendarDate } from '@/core/dates/calendar-date';
import { brokenRules } from '@/core/einvoice/einvoice';
import { newLine, type Paper } from '@/core/invoice/paper';
import { minorDigits } from '@/core/money/currency';
import { decimalText } from '@/core/money/decimal';
import { STANDARD } from '@/core/tax/business-tax';
import { businessById } from '@/db/businesses';
import { customersByWriting } from '@/db/customers';
import { announce } from '@/db/jobs';
import type { Actor } from '@/db/people';
import { taxesOf } from '@/db/taxes';
import { insertHappening } from '@/db/timeline';
import { inBusiness } from '@/db/transaction';
import { NotAnInvoice, type ReadInvoice, readInvoiceXml, unitOf } from '@/documents/ubl/read';
import { services } from '@/outside/services';
import { requireRight } from './access';
import { emptyPaper, writeDraft } from './draft';
import { Refusal } from './refusal';
import { storeFile } from './store-file';

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
 * @throws Refusal `not-well-formed` with what is wrong
 */
export async function readEInvoice(actor: Actor, xml: string): Promise<string> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  let read: ReadInvoice;
  try {
    read = readInvoiceXml(xml);
  } catch (error) {
    if (error instanceof NotAnInvoice) throw new Refusal('not-well-formed', [{ field: 'file', words: error.message }]);
    throw error;
  }
  const broken = brokenRules(read.figures);
  if (broken.length > 0)
    throw new Refusal(
      'not-well-formed',
      broken.map(({ rule, words }) => ({ field: rule, words: `${rule}: ${words}` })),
    );
  const { businessId } = actor;
  return inBusiness(businessId, async (tx) => {
    const business = await businessById(tx, businessId);
    const taxes = (await taxesOf(tx, businessId)).filter(({ retired }) => !retired);
    const taxIdOf = (rate: string) => {
      const tax = rate === '0' ? undefined : taxes.find((one) => one.rate === rate);
      return tax ? [tax.id] : [];
    };
    const customer = (await customersByWriting(tx, businessId, [read.buyer])).get(read.buyer.toLowerCase()) ?? null;
    const paper = { ...emptyPaper(business, customer), ...paperOfXml(read, taxIdOf) };
    const id = await writeDraft(tx, business, paper, 1, 'desk', now);
    await insertHappening(tx, businessId, id, { kind: 'made', by: 'import' }, actor.name, now);
    await announce(tx, businessId);
    return id;
  });
}

/**
 * Begins an invoice from a PDF made elsewhere: the PDF is the document, and the draft asks for its amount.
 *
 * @throws Refusal `file-not-taken`, `file-too-large`
 */
export async function bringInPdf(actor: Actor, name: string, bytes: Buffer): Promise<string> {
  const file = await storeFile(actor, name, 'document', bytes);
  const now = await services().clock.now();
  const { businessId } = actor;
  return inBusiness(businessId, async (tx) => {
    const business = await businessById(tx, businessId);
    const paper: Paper = {
      ...emptyPaper(business, null),
      elsewhere: { fileId: file.id, name: file.name },
      lines: [newLine(randomUUID(), 'flat', { what: `As in ${file.name}`, taxesBy: 'person', taxes: [] })],
    };
    const id = await writeDraft(tx, business, paper, 1, 'desk', now);
    await insertHappening(tx, businessId, id, { kind: 'made', by: 'import' }, actor.name, now);
    await announce(tx, businessId);
    return id;
  });
}
