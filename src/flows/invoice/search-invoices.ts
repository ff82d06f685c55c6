import { randomUUID } from 'node:crypto';
import { dateInZone } from '@/core/dates/zone';
import { EVERYTHING, type InvoiceAsk, type StateCount, stateCounts } from '@/core/invoice/ask';
import { typedMinor } from '@/core/invoice/read-paper';
import { isCurrency, minorDigits } from '@/core/money/currency';
import { decimalSignOf } from '@/core/money/typed';
import { businessById } from '@/db/businesses';
import { statusSums } from '@/db/day-sums';
import type { Cursor } from '@/db/invoice-lists';
import { draftSums, isSearchKey, searchKey, searchRows } from '@/db/invoice-search';
import { deleteSavedList, keepSavedList, type SavedList, savedLists } from '@/db/saved-lists';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import type { ListPage } from './invoice-list';

const PAGE = 40;

/** A page of the invoices that are asked for, by key. */
export const searchInvoices = desk('see').read(
  async (db, ask: InvoiceAsk, after: Cursor | null = null): Promise<ListPage> => {
    if (after && !isSearchKey(ask, after.key)) throw new Refusal('not-found');
    const business = await businessById(db);
    const digits = minorDigits(isCurrency(ask.currency) ? ask.currency : business.currency);
    const sums = {
      least: ask.least.trim() ? typedMinor(ask.least, digits) : null,
      most: ask.most.trim() ? typedMinor(ask.most, digits) : null,
    };
    const rows = await searchRows(
      db,
      db.businessId,
      ask,
      { ...sums, today: dateInZone(db.now, business.zone), sign: decimalSignOf(business.deskLocale) },
      PAGE + 1,
      after,
    );
    const shown = rows.slice(0, PAGE);
    const last = shown.at(-1);
    return { rows: shown, next: rows.length > PAGE && last ? { key: searchKey(ask, last), id: last.id } : null };
  },
);

/** Counts and sums for every state, and the lists kept under a name. */
export const listOverview = desk('see').read(
  async (db): Promise<{ counts: StateCount[]; saved: SavedList<InvoiceAsk>[] }> => {
    const business = await businessById(db);
    const sums = await statusSums(db);
    const drafts = await draftSums(db);
    const saved = await savedLists<Partial<InvoiceAsk>>(db, 'invoices');
    return {
      counts: stateCounts(sums, drafts, dateInZone(db.now, business.zone)),
      // What a list was kept with before something could be asked asks nothing of it.
      saved: saved.map((list) => ({ ...list, asked: { ...EVERYTHING, ...list.asked } })),
    };
  },
);

/** Keeps what is asked under a name; the name's earlier list gives way. */
export const saveList = desk('ask').write(async (tx, name: string, asked: InvoiceAsk): Promise<void> => {
  await keepSavedList(tx, 'invoices', { id: randomUUID(), name, asked });
});

export const dropList = desk('ask').write(async (tx, id: string): Promise<void> => {
  await deleteSavedList(tx, id);
});
