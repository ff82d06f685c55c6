import { randomBytes, randomUUID } from 'node:crypto';
import { type Business, usualWays } from '@/core/business/business';
import type { Customer } from '@/core/customer/customer';
import { dateInZone } from '@/core/dates/zone';
import { newLine, type Paper, wholePaper } from '@/core/invoice/paper';
import { filledPaper, freshPaper } from '@/core/invoice/placeholders';
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
import { announce } from '@/db/jobs';
import type { Actor } from '@/db/people';
import type { Db, Tx } from '@/db/pool';
import { templateById } from '@/db/templates';
import { insertHappening } from '@/db/timeline';
import { inBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from './access';
import { localeOf, readingOf } from './paper-setting';
import { Refusal } from './refusal';

/** 192 bits: nobody guesses a link. */
export const linkToken = (): string => randomBytes(24).toString('base64url');

/** What an invoice is begun from: for a customer, from a template, as another invoice, or as the customer's last one. */
export type StartFrom = {
  readonly customerId?: string | undefined;
  readonly templateId?: string | undefined;
  readonly invoiceId?: string | undefined;
  readonly asLast?: boolean | undefined;
};

/** An empty paper as the business and the customer usually have it. */
export const emptyPaper = (business: Business, customer: Customer | null): Paper =>
  wholePaper({
    customerId: customer?.id ?? null,
    ...(customer?.due ? { due: customer.due } : {}),
    lines: [newLine(randomUUID())],
    ways: usualWays(business),
    termsId: business.termsId,
  });

async function firstPaper(db: Db, business: Business, from: StartFrom, now: Date): Promise<Paper | null> {
  const customer = from.customerId ? found(await customerById(db, business.id, from.customerId)) : null;
  if (from.templateId) {
    const { paper } = found(await templateById(db, business.id, from.templateId));
    const filled = filledPaper(paper, dateInZone(now, business.zone), localeOf(business, customer));
    return { ...freshPaper(filled, randomUUID), customerId: customer?.id ?? paper.customerId };
  }
  const last = from.asLast && customer ? await lastInvoiceOf(db, business.id, customer.id) : null;
  const invoiceId = from.invoiceId ?? last?.id;
  if (invoiceId) return freshPaper(found(await invoiceById(db, business.id, invoiceId)).paper, randomUUID);
  return customer ? emptyPaper(business, customer) : null;
}

/** Begins an invoice; without anything to begin from, a draft that this person never wrote on is taken up again. Returns its id. */
export async function startInvoice(actor: Actor, from: StartFrom = {}): Promise<string> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  return inBusiness(actor.businessId, async (tx) => {
    const business = await businessById(tx, actor.businessId);
    const paper = await firstPaper(tx, business, from, now);
    if (!paper) {
      const untouched = await untouchedDraft(tx, actor.businessId, actor.name);
      if (untouched) return untouched.id;
    }
    const id = await writeDraft(tx, business, paper ?? emptyPaper(business, null), paper ? 1 : 0, 'desk', now);
    await insertHappening(tx, actor.businessId, id, { kind: 'made' }, actor.name, now);
    await announce(tx, actor.businessId);
    return id;
  });
}

/** Writes a new draft down with its sums; the happening is the caller's to tell. Returns its id. */
export async function writeDraft(
  tx: Tx,
  business: Business,
  paper: Paper,
  revision: number,
  origin: NewDraft['origin'],
  now: Date,
): Promise<string> {
  const customer = paper.customerId ? await customerById(tx, business.id, paper.customerId) : null;
  const { document, tally } = await readingOf(tx, business, customer, paper);
  const id = randomUUID();
  const sums = { currency: document.currency, totalMinor: tally.total, taxMinor: tally.taxTotal };
  await insertDraft(tx, business.id, { id, paper, linkToken: linkToken(), revision, origin, ...sums }, now);
  return id;
}

/**
 * Keeps a draft as typed, whether or not it can be sent.
 *
 * @param revision the one that was read; somebody else's later one is never overwritten
 * @returns the revision kept and when
 * @throws Refusal `draft-changed-elsewhere`, `draft-already-sent`, `not-found`
 */
export async function saveDraft(
  actor: Actor,
  id: string,
  paper: Paper,
  revision: number,
): Promise<{ revision: number; keptAt: Date }> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  return inBusiness(actor.businessId, async (tx) => {
    const draft = found(await lockedInvoice(tx, actor.businessId, id));
    if (draft.stage !== 'draft') throw new Refusal('draft-already-sent');
    const business = await businessById(tx, actor.businessId);
    const customer = paper.customerId ? found(await customerById(tx, actor.businessId, paper.customerId)) : null;
    const { document, tally } = await readingOf(tx, business, customer, paper);
    const sums = { currency: document.currency, totalMinor: tally.total, taxMinor: tally.taxTotal };
    const kept = await updateDraft(tx, actor.businessId, id, { paper, revision, ...sums }, now);
    if (!kept) throw new Refusal('draft-changed-elsewhere');
    await announce(tx, actor.businessId);
    return { revision: revision + 1, keptAt: now };
  });
}

/** Throws a draft away; its number was never given, so nothing is missing. */
export async function discardDraft(actor: Actor, id: string): Promise<void> {
  requireRight(actor, 'ask');
  await inBusiness(actor.businessId, async (tx) => {
    const draft = found(await invoiceById(tx, actor.businessId, id));
    if (draft.stage !== 'draft') throw new Refusal('draft-already-sent');
    await deleteDraft(tx, actor.businessId, id);
    await announce(tx, actor.businessId);
  });
}
