import { randomUUID } from 'node:crypto';
import { type Business, usualWays } from '@/core/business/business';
import type { Customer } from '@/core/customer/customer';
import { dateInZone } from '@/core/dates/zone';
import { anothersPaper, filledPaper } from '@/core/invoice/placeholders';
import { type Following, mayFollow } from '@/core/paper/kept-by';
import { completePaper, newLine, type Paper } from '@/core/paper/paper';
import { businessById } from '@/db/businesses';
import { customerById } from '@/db/customers';
import {
  deleteDraft,
  insertDraft,
  invoiceById,
  lastInvoiceOf,
  lockedInvoice,
  type NewDraft,
  untouchedDraft,
  updateDraft,
} from '@/db/invoices';
import { newToken } from '@/db/link-tokens';
import type { Db, Tx } from '@/db/pool';
import { templateById } from '@/db/templates';
import { addToTimeline } from '@/db/timeline';
import { desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { localeOf, readingOf } from './paper-setting';

const NO_WINDOW = { by: null, after: null };

/** What an invoice is begun from: for a customer, from a template, as another invoice, or as the customer's last one. */
export type StartFrom = {
  readonly customerId?: string | undefined;
  readonly templateId?: string | undefined;
  readonly invoiceId?: string | undefined;
  readonly asLast?: boolean | undefined;
  /** Whether the other invoice's files come along. */
  readonly withFiles?: boolean | undefined;
};

/** An empty paper as the business and the customer usually have it. */
export const emptyPaper = (business: Business, customer: Customer | null): Paper =>
  completePaper({
    customerId: customer?.id ?? null,
    ...(customer?.due ? { due: customer.due } : {}),
    lines: [newLine(randomUUID())],
    ways: usualWays(business),
    termsId: business.termsId,
  });

async function firstPaper(db: Db, business: Business, from: StartFrom): Promise<Paper | null> {
  const customer = from.customerId ? found(await customerById(db, from.customerId)) : null;
  if (from.templateId) {
    const { paper } = found(await templateById(db, from.templateId));
    const filled = filledPaper(paper, dateInZone(db.now, business.zone), localeOf(business, customer));
    // What a template holds was wanted when it was kept.
    return { ...anothersPaper(filled, randomUUID, true), customerId: customer?.id ?? paper.customerId };
  }
  const last = from.asLast && customer ? await lastInvoiceOf(db, customer.id) : null;
  const invoiceId = from.invoiceId ?? last?.id;
  if (invoiceId) return anothersPaper(found(await invoiceById(db, invoiceId)).paper, randomUUID, from.withFiles);
  return customer ? emptyPaper(business, customer) : null;
}

/** Begins an invoice; without anything to begin from, a draft that this person never wrote on is taken up again. Returns its id. */
export const startInvoice = desk('ask').write(async (tx, from: StartFrom = {}): Promise<string> => {
  const business = await businessById(tx);
  const paper = await firstPaper(tx, business, from);
  if (!paper) {
    const untouched = await untouchedDraft(tx, tx.name);
    if (untouched) return untouched.id;
  }
  const id = await writeDraft(tx, business, paper ?? emptyPaper(business, null), {
    revision: paper ? 1 : 0,
    origin: 'desk',
  });
  await addToTimeline(tx, id, { kind: 'made' }, tx.name);
  return id;
});

/** The first paper of somebody who has just signed up: empty, with a sample beside it. Returns its id. */
export async function writeSample(tx: Writing, business: Business): Promise<string> {
  const paper = { ...emptyPaper(business, null), sample: true };
  const id = await writeDraft(tx, business, paper, { revision: 0, origin: 'desk' });
  await addToTimeline(tx, id, { kind: 'made' }, tx.name);
  return id;
}

/** Writes a new draft down with its sums; the event is the caller's to tell. Returns its id. */
export async function writeDraft(
  tx: Tx,
  business: Business,
  paper: Paper,
  { revision, origin }: Pick<NewDraft, 'revision' | 'origin'>,
): Promise<string> {
  const customer = paper.customerId ? await customerById(tx, paper.customerId) : null;
  const { document, tally } = await readingOf(tx, business, customer, paper);
  const id = randomUUID();
  const sums = { currency: document.currency, totalMinor: tally.total, taxMinor: tally.taxTotal };
  await insertDraft(tx, { id, paper, linkToken: newToken(tx.businessId), revision, origin, ...sums });
  return id;
}

/**
 * Keeps a draft as typed, whether or not it can be sent.
 *
 * @param revision the one that was read; somebody else's later one is never overwritten
 * @param window whose words they are, where a window says so
 * @returns the revision kept and when
 * @throws Refusal `draft-changed-elsewhere`, `draft-already-sent`, `not-found`
 */
export const saveDraft = desk('ask').write(
  async (
    tx,
    id: string,
    paper: Paper,
    revision: number,
    window: Pick<Following, 'by' | 'after'> = NO_WINDOW,
  ): Promise<{ revision: number; keptAt: Date }> => {
    const draft = found(await lockedInvoice(tx, id));
    if (draft.stage !== 'draft') throw new Refusal('draft-already-sent');
    const stands = { revision: draft.revision, by: draft.keptBy };
    if (!mayFollow(stands, { revision, ...window })) throw new Refusal('draft-changed-elsewhere');
    const business = await businessById(tx);
    const customer = paper.customerId ? found(await customerById(tx, paper.customerId)) : null;
    const { document, tally } = await readingOf(tx, business, customer, paper);
    const sums = { currency: document.currency, totalMinor: tally.total, taxMinor: tally.taxTotal };
    const kept = await updateDraft(tx, id, { paper, revision: stands.revision, by: window.by, ...sums });
    if (!kept) throw new Refusal('draft-changed-elsewhere');
    return { revision: stands.revision + 1, keptAt: tx.now };
  },
);

/** Throws a draft away; its number was never given, so nothing is missing. */
export const discardDraft = desk('ask').write(async (tx, id: string): Promise<void> => {
  const draft = found(await invoiceById(tx, id));
  if (draft.stage !== 'draft') throw new Refusal('draft-already-sent');
  await deleteDraft(tx, id);
});
