import { randomUUID } from 'node:crypto';
import { dateInZone } from '@/core/dates/zone';
import { type InvoiceAsk, type StateCount, stateCounts } from '@/core/invoice/ask';
import { typedMinor } from '@/core/invoice/read-paper';
import { isCurrency, minorDigits } from '@/core/money/currency';
import { businessById } from '@/db/businesses';
import { standingSums } from '@/db/day-sums';
import {
  deleteSavedList,
  draftSums,
  keepSavedList,
  type SavedList,
  savedLists,
  searchKey,
  searchRows,
} from '@/db/invoice-search';
import type { Cursor } from '@/db/invoices';
import type { Actor } from '@/db/people';
import { inBusiness, readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { requireRight } from './access';
import type { ListPage } from './invoice-list';

export type { SavedList };

const PAGE = 40;

/** A page of the invoices that are asked for, by key. */
export async function searchInvoices(actor: Actor, ask: InvoiceAsk, after: Cursor | null = null): Promise<ListPage> {
  requireRight(actor, 'read');
  const now = await services().clock.now();
  return readBusiness(actor.businessId, async (db) => {
    const business = await businessById(db, actor.businessId);
    const digits = minorDigits(isCurrency(ask.currency) ? ask.currency : business.currency);
    const sums = {
      least: ask.least.trim() ? typedMinor(ask.least, digits) : null,
      most: ask.most.trim() ? typedMinor(ask.most, digits) : null,
    };
    const rows = await searchRows(db, actor.businessId, ask, sums, dateInZone(now, business.zone), PAGE + 1, after);
    const shown = rows.slice(0, PAGE);
    const last = shown.at(-1);
    return { rows: shown, next: rows.length > PAGE && last ? { key: searchKey(ask, last), id: last.id } : null };
  });
}

/** Counts and sums for every state, and the lists kept under a name. */
export async function listOverview(actor: Actor): Promise<{ counts: StateCount[]; saved: SavedList[] }> {
  requireRight(actor, 'read');
  const now = await services().clock.now();
  return readBusiness(actor.businessId, async (db) => {
    const business = await businessById(db, actor.businessId);
    const sums = await standingSums(db, actor.businessId);
    const drafts = await draftSums(db, actor.businessId);
    return {
      counts: stateCounts(sums, drafts, dateInZone(now, business.zone)),
      saved: await savedLists(db, actor.businessId),
    };
  });
}

/** Keeps what is asked under a name; the name's earlier list gives way. */
export async function saveList(actor: Actor, name: string, asked: InvoiceAsk): Promise<void> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  await inBusiness(actor.businessId, (tx) =>
    keepSavedList(tx, actor.businessId, { id: randomUUID(), name, asked }, now),
  );
}

export async function dropList(actor: Actor, id: string): Promise<void> {
  requireRight(actor, 'ask');
  await inBusiness(actor.businessId, (tx) => deleteSavedList(tx, actor.businessId, id));
}
