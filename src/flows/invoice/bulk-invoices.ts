import { randomUUID } from 'node:crypto';
import { dateInZone } from '@/core/dates/zone';
import { MOST_IN_BULK, type OwnWords, ownPaper } from '@/core/invoice/bulk';
import { copiedPaper, forOthers } from '@/core/invoice/placeholders';
import type { SendWith } from '@/core/invoice/send-with';
import { sendingProblems } from '@/core/invoice/sending';
import {
  type BulkInvoices,
  type BulkRow,
  bulkById,
  bulkRows,
  bulksOf,
  claimBulkRows,
  insertBulk,
  insertBulkRows,
  readyAgain,
  updateBulkRows,
  updateBulkState,
} from '@/db/bulk-invoices';
import { type Business, businessById } from '@/db/businesses';
import { type Customer, customerById, customersByIds, customersByWriting, customersOfGroup } from '@/db/customers';
import { deleteDraft, invoiceById, lockedInvoice } from '@/db/invoices';
import { enqueueJobs } from '@/db/jobs';
import { newToken } from '@/db/link-tokens';
import { personById } from '@/db/people';
import type { Db, Tx } from '@/db/pool';
import { desk, type Writing, worker } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { issueInvoices, type ToIssue } from './issue-invoices';
import { readingOf } from './paper-setting';

/** To whom bulk invoices go: customers by id, a whole group, or rows of a file that name them by e-mail address or name. */
export type BulkTo = {
  readonly customerIds: readonly string[];
  readonly group: string;
  readonly rows: readonly { readonly customer: string; readonly own: OwnWords }[];
};

const AT_ONCE = 250;

type Wanted = { readonly customer: Customer | null; readonly named: string; readonly own: OwnWords };

async function wantedOf(db: Db, to: BulkTo): Promise<Wanted[]> {
  const chosen: Wanted[] = [];
  for (const id of new Set(to.customerIds)) {
    const customer = await customerById(db, id);
    chosen.push({ customer, named: customer?.name ?? id, own: {} });
  }
  const group = to.group ? await customersOfGroup(db, to.group, MOST_IN_BULK) : [];
  const known = await customersByWriting(
    db,
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
  ].slice(0, MOST_IN_BULK);
}

async function checkedRow(
  db: Db,
  business: Business,
  bulk: Pick<BulkInvoices, 'paper' | 'sendWith'>,
  { customer, named, own }: Wanted,
): Promise<Omit<BulkRow, 'position' | 'invoiceId'>> {
  const none = { customerId: customer?.id ?? null, own, totalMinor: 0n, currency: '' };
  if (!customer) return { ...none, state: 'refused', reason: `Nobody on file is “${named || 'without a name'}”` };
  const paper = ownPaper(bulk.paper, customer.id, own);
  const reading = await readingOf(db, business, customer, paper);
  const [problem] = sendingProblems(paper, reading, dateInZone(db.now, business.zone));
  const unreachable =
    bulk.sendWith.way === 'mail' && !customer.email
      ? 'No e-mail address on file'
      : (bulk.sendWith.way === 'text' || bulk.sendWith.way === 'chat') && !customer.phone
        ? 'No phone number on file'
        : '';
  const reason = problem?.words ?? unreachable;
  const sums = { totalMinor: reading.tally.total, currency: reading.document.currency };
  return { ...none, ...sums, state: reason ? 'refused' : 'ready', reason };
}

/**
 * Writes bulk invoices down with every row checked; nothing is sent yet. Returns its id.
 *
 * @param invoiceId the draft or invoice whose paper everybody gets; a draft has then done its work once they are sent
 */
export const checkBulk = desk('ask').run(
  async (
    ctx,
    invoiceId: string,
    name: string,
    to: BulkTo,
    sendWith: SendWith,
    withFiles?: boolean,
  ): Promise<string> => {
    const id = randomUUID();
    await ctx.write(async (tx) => {
      const draft = found(await invoiceById(tx, invoiceId));
      const business = await businessById(tx);
      const bulk: BulkInvoices = {
        id,
        name: name || draft.paper.title || 'Bulk invoices',
        // All at the same moment: the days that it has are theirs too.
        paper: forOthers(copiedPaper(draft.paper, randomUUID, withFiles ?? true)),
        draft: draft.stage === 'draft' ? { id: draft.id, revision: draft.revision } : null,
        sendWith: { ...sendWith, to: [], phone: '' },
        state: 'checked',
        byId: ctx.personId,
        createdAt: ctx.now,
      };
      const rows: Omit<BulkRow, 'invoiceId'>[] = [];
      for (const [position, wanted] of (await wantedOf(tx, to)).entries()) {
        rows.push({ position, ...(await checkedRow(tx, business, bulk, wanted)) });
      }
      await insertBulk(tx, bulk);
      await insertBulkRows(tx, id, rows);
    });
    return id;
  },
);

/** The draft that everybody gets is nobody's any more; one that was written on since stays. */
async function dropDraft(tx: Tx, { draft }: BulkInvoices): Promise<void> {
  const now = draft && (await lockedInvoice(tx, draft.id));
  if (now && now.stage === 'draft' && now.revision === draft.revision) await deleteDraft(tx, now.id);
}

/** Lets the worker send what is ready; with `again` the refused ones are looked at once more. The same press twice sends once. */
export const sendBulk = desk('ask').write(async (tx, id: string, again?: boolean): Promise<void> => {
  const bulk = found(await bulkById(tx, id, true));
  await dropDraft(tx, bulk);
  if (again) await readyAgain(tx, id);
  await updateBulkState(tx, id, 'sending');
  await enqueueJobs(tx, [
    { task: 'run-batch', key: `batch:${id}`, payload: { businessId: tx.businessId, batchId: id } },
  ]);
});

/** Sends the rows of bulk invoices, many at a time, each with its own number. Killed at any point it goes on where it was. */
export const runBulk = worker().run(async (ctx, bulkId: string): Promise<void> => {
  while (await (await ctx.later()).sets((tx) => sendRows(tx, bulkId)));
});

/** Sends the next rows; whether there may be more. */
async function sendRows(tx: Writing, bulkId: string): Promise<boolean> {
  const bulk = found(await bulkById(tx, bulkId, true));
  if (bulk.state !== 'sending') return false;
  const rows = await claimBulkRows(tx, bulkId, AT_ONCE);
  if (rows.length === 0) {
    await updateBulkState(tx, bulkId, 'done');
    return false;
  }
  const business = await businessById(tx);
  const byName = (await personById(tx, bulk.byId))?.name ?? 'Dahlia';
  const customers = new Map(
    (
      await customersByIds(
        tx,
        rows.flatMap(({ customerId }) => customerId ?? []),
        true,
      )
    ).map((customer) => [customer.id, customer]),
  );
  const items = rows.map(({ customerId, own }): ToIssue => {
    const customer = found(customers.get(found(customerId)));
    const paper = copiedPaper(ownPaper(bulk.paper, customer.id, own), randomUUID, true);
    return {
      id: randomUUID(),
      paper,
      customer,
      how: bulk.sendWith,
      byName,
      fresh: { linkToken: newToken(tx.businessId), origin: 'batch', made: { by: 'batch', byName } },
    };
  });
  const issued = await issueInvoices(tx, business, items);
  await updateBulkRows(
    tx,
    bulkId,
    rows.map(({ position }, at) => {
      const one = issued[at];
      if (!one || one instanceof Refusal)
        return { position, state: 'refused', reason: one?.fields[0]?.words ?? one?.words ?? '', invoiceId: null };
      return { position, state: 'sent', reason: '', invoiceId: one.id };
    }),
  );
  return true;
}

export type BulkSheet = { readonly bulk: BulkInvoices; readonly rows: Awaited<ReturnType<typeof bulkRows>> };

/** Bulk invoices with their rows. @throws Refusal `not-found` */
export const bulkSheet = desk('see').read(async (db, id: string): Promise<BulkSheet> => {
  return {
    bulk: found(await bulkById(db, id)),
    rows: await bulkRows(db, id),
  };
});

export const bulkList = desk('see').read(async (db): Promise<ReturnType<typeof bulksOf>> => {
  return bulksOf(db);
});
