import { randomUUID } from 'node:crypto';
import { dateInZone } from '@/core/dates/zone';
import { type OwnWords, ownPaper } from '@/core/invoice/batch';
import { freshPaper } from '@/core/invoice/placeholders';
import type { SendWith } from '@/core/invoice/send-with';
import { sendingProblems } from '@/core/invoice/sending';
import {
  type Batch,
  type BatchRow,
  batchById,
  batchesOf,
  batchRows,
  claimBatchRows,
  insertBatch,
  insertBatchRows,
  readyAgain,
  updateBatchRow,
  updateBatchState,
} from '@/db/batches';
import { type Business, businessById } from '@/db/businesses';
import { type Customer, customerById, customersByWriting, customersOfGroup } from '@/db/customers';
import { invoiceById } from '@/db/invoices';
import { announce, enqueueJob } from '@/db/jobs';
import { type Actor, personById } from '@/db/people';
import type { Db, Tx } from '@/db/pool';
import { insertHappening } from '@/db/timeline';
import { inBusiness, inBusinessInTurn, inSavepoint, readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from './access';
import { writeDraft } from './draft';
import { readingOf } from './paper-setting';
import { Refusal } from './refusal';
import { sendInTurn } from './send-invoice';

/** To whom a batch goes: customers by id, a whole group, or rows of a file that name them by e-mail address or name. */
export type BatchTo = {
  readonly customerIds: readonly string[];
  readonly group: string;
  readonly rows: readonly { readonly customer: string; readonly own: OwnWords }[];
};

export const MOST_IN_BATCH = 5000;
const AT_ONCE = 20;

type Wanted = { readonly customer: Customer | null; readonly named: string; readonly own: OwnWords };

async function wantedOf(db: Db, businessId: string, to: BatchTo): Promise<Wanted[]> {
  const chosen: Wanted[] = [];
  for (const id of new Set(to.customerIds)) {
    const customer = await customerById(db, businessId, id);
    chosen.push({ customer, named: customer?.name ?? id, own: {} });
  }
  const group = to.group ? await customersOfGroup(db, businessId, to.group, MOST_IN_BATCH) : [];
  const known = await customersByWriting(
    db,
    businessId,
    to.rows.map(({ customer }) => customer),
  );
  return [
    ...chosen,
    // Ticked and in the group is one customer, and one invoice; a file may want several for one.
    ...group
      .filter(({ id }) => !to.customerIds.includes(id))
      .map((customer) => ({ customer, named: customer.name, own: {} })),
    ...to.rows.map(({ customer, own }) => ({
      customer: known.get(customer.toLowerCase()) ?? null,
      named: customer,
      own,
    })),
  ].slice(0, MOST_IN_BATCH);
}

async function checkedRow(
  db: Db,
  business: Business,
  batch: Pick<Batch, 'paper' | 'sendWith'>,
  { customer, named, own }: Wanted,
  now: Date,
): Promise<Omit<BatchRow, 'position' | 'invoiceId'>> {
  const none = { customerId: customer?.id ?? null, own, totalMinor: 0n, currency: '' };
  if (!customer) return { ...none, state: 'refused', reason: `Nobody on file is “${named || 'without a name'}”` };
  const paper = ownPaper(batch.paper, customer.id, own);
  const reading = await readingOf(db, business, customer, paper);
  const [problem] = sendingProblems(paper, reading, dateInZone(now, business.zone));
  const unreachable =
    batch.sendWith.way === 'mail' && !customer.email
      ? 'No e-mail address on file'
      : (batch.sendWith.way === 'text' || batch.sendWith.way === 'chat') && !customer.phone
        ? 'No phone number on file'
        : '';
  const reason = problem?.words ?? unreachable;
  const sums = { totalMinor: reading.tally.total, currency: reading.document.currency };
  return { ...none, ...sums, state: reason ? 'refused' : 'ready', reason };
}

/**
 * Writes a batch down with every row checked; nothing is sent yet. Returns its id.
 *
 * @param invoiceId the draft whose paper everybody gets
 */
export async function checkBatch(
  actor: Actor,
  invoiceId: string,
  name: string,
  to: BatchTo,
  sendWith: SendWith,
): Promise<string> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  const id = randomUUID();
  await inBusiness(actor.businessId, async (tx) => {
    const draft = found(await invoiceById(tx, actor.businessId, invoiceId));
    const business = await businessById(tx, actor.businessId);
    const batch: Batch = {
      id,
      name: name || draft.paper.title || 'Batch',
      paper: { ...freshPaper(draft.paper, randomUUID), files: draft.paper.files },
      sendWith: { ...sendWith, to: [], phone: '' },
      state: 'checked',
      byId: actor.personId,
      createdAt: now,
    };
    const rows: Omit<BatchRow, 'invoiceId'>[] = [];
    for (const [position, wanted] of (await wantedOf(tx, actor.businessId, to)).entries()) {
      rows.push({ position, ...(await checkedRow(tx, business, batch, wanted, now)) });
    }
    await insertBatch(tx, actor.businessId, batch);
    await insertBatchRows(tx, actor.businessId, id, rows);
  });
  return id;
}

/** Lets the worker send what is ready; with `again` the refused ones are looked at once more. The same press twice sends once. */
export async function sendBatch(actor: Actor, id: string, again = false): Promise<void> {
  requireRight(actor, 'ask');
  await inBusiness(actor.businessId, async (tx) => {
    found(await batchById(tx, actor.businessId, id, true));
    if (again) await readyAgain(tx, actor.businessId, id);
    await updateBatchState(tx, actor.businessId, id, 'sending');
    await enqueueJob(tx, 'run-batch', `batch:${id}`, { businessId: actor.businessId, batchId: id });
    await announce(tx, actor.businessId);
  });
}

/** Sends a batch's rows, some at a time, each with its own number. Killed at any point it goes on where it was. */
export async function runBatch(businessId: string, batchId: string): Promise<void> {
  for (;;) {
    const now = await services().clock.now();
    const more = await inBusinessInTurn(businessId, async (tx) => {
      const batch = found(await batchById(tx, businessId, batchId));
      const rows = batch.state === 'sending' ? await claimBatchRows(tx, businessId, batchId, AT_ONCE) : [];
      const business = await businessById(tx, businessId);
      const person = await personById(tx, businessId, batch.byId);
      for (const row of rows) await sendRow(tx, business, batch, row, person?.name ?? 'Dahlia', now);
      if (rows.length === 0 && batch.state === 'sending') await updateBatchState(tx, businessId, batchId, 'done');
      await announce(tx, businessId);
      return rows.length > 0;
    });
    if (!more) return;
  }
}

async function sendRow(
  tx: Tx,
  business: Business,
  batch: Batch,
  row: BatchRow,
  byName: string,
  now: Date,
): Promise<void> {
  const send = async (): Promise<string> => {
    const customerId = found(row.customerId);
    const paper = freshPaper(ownPaper(batch.paper, customerId, row.own), randomUUID);
    const id = await writeDraft(tx, business, { ...paper, files: batch.paper.files }, 1, 'batch', now);
    await insertHappening(tx, business.id, id, { kind: 'made', by: 'batch' }, byName, now);
    const draft = found(await invoiceById(tx, business.id, id));
    await sendInTurn(tx, { businessId: business.id, name: byName }, business, draft, batch.sendWith, now);
    return id;
  };
  try {
    // What one row wrote before it was refused goes with it, and the others stay.
    const invoiceId = await inSavepoint(tx, send);
    await updateBatchRow(tx, business.id, batch.id, row.position, { state: 'sent', reason: '', invoiceId });
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    const reason = error.fields[0]?.words ?? error.words;
    await updateBatchRow(tx, business.id, batch.id, row.position, { state: 'refused', reason, invoiceId: null });
  }
}

export type BatchSheet = { readonly batch: Batch; readonly rows: Awaited<ReturnType<typeof batchRows>> };

/** A batch with its rows. @throws Refusal `not-found` */
export function batchSheet(actor: Actor, id: string): Promise<BatchSheet> {
  requireRight(actor, 'read');
  return readBusiness(actor.businessId, async (db) => ({
    batch: found(await batchById(db, actor.businessId, id)),
    rows: await batchRows(db, actor.businessId, id),
  }));
}

export function batchList(actor: Actor): ReturnType<typeof batchesOf> {
  requireRight(actor, 'read');
  return readBusiness(actor.businessId, (db) => batchesOf(db, actor.businessId));
}
