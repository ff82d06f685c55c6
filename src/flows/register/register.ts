import { addDays, type CalendarDate, isCalendarDate } from '@/core/dates/calendar-date';
import { isUsualMoment } from '@/core/dates/usual';
import { dateInZone, instantInZone } from '@/core/dates/zone';
import { isKept, type RegisterAsk, type RegisterSum } from '@/core/register/ask';
import { type Business, businessById } from '@/db/businesses';
import type { Db } from '@/db/pool';
import { countedSums, keptSums, type RegisterCursor, type RegisterRow, registerRows, type Span } from '@/db/register';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { noteExport } from '@/flows/log/log';
import { registerCsvHead, registerCsvRows, registerJsonRow } from './register-file';

export type { RegisterCursor, RegisterRow, RegisterSum };

const PAGE = 40;
/** So many rows are read at once for a file: enough that the database is not asked too often, few enough to be held. */
const PART = 4000;

/** The days that are asked for, as instants by the business's clock. */
function spanOf({ from, to }: RegisterAsk, { zone }: Business): Span {
  const midnight = (day: CalendarDate) => instantInZone(day, '00:00', zone);
  return {
    from: isCalendarDate(from) ? midnight(from) : null,
    to: isCalendarDate(to) ? midnight(addDays(to, 1)) : null,
  };
}

const cursorOf = (row: RegisterRow): RegisterCursor => ({ key: row.at.toISOString(), id: row.id });

export type RegisterPage = {
  readonly business: Business;
  readonly today: CalendarDate;
  readonly rows: readonly RegisterRow[];
  readonly next: RegisterCursor | null;
};

/** A page of payments and refunds, latest first. @throws Refusal `not-found` for a cursor that is none */
export const registerOf = desk('see').read(
  async (db, ask: RegisterAsk, after: RegisterCursor | null): Promise<RegisterPage> => {
    if (after && !isUsualMoment(after.key)) throw new Refusal('not-found');
    const business = await businessById(db);
    const rows = await registerRows(db, ask, spanOf(ask, business), PAGE + 1, after);
    const shown = rows.slice(0, PAGE);
    const last = shown.at(-1);
    return {
      business,
      today: dateInZone(db.now, business.zone),
      rows: shown,
      next: rows.length > PAGE && last ? cursorOf(last) : null,
    };
  },
);

/** What is asked comes to, by currency, the business's own first: from what is kept where that is enough, else counted. */
export const registerSums = desk('see').read(async (db, ask: RegisterAsk): Promise<RegisterSum[]> => {
  const business = await businessById(db);
  const sums = isKept(ask) ? await keptSums(db, ask) : await countedSums(db, ask, spanOf(ask, business));
  return [...sums].sort((a, b) => Number(b.currency === business.currency) - Number(a.currency === business.currency));
});

/** All that is asked as a file, part by part: a million rows are never held at once. */
export const registerFile = desk('see').run(
  async (ctx, ask: RegisterAsk, form: 'csv' | 'json'): Promise<AsyncIterable<string>> => {
    const business = await ctx.read((db) => businessById(db));
    const part = (after: RegisterCursor | null) =>
      ctx.read((db: Db) => registerRows(db, ask, spanOf(ask, business), PART, after));
    await ctx.keep((tx) => noteExport(tx, 'The register of payments', ''));
    return form === 'csv' ? csvParts(part, business) : jsonParts(part, business);
  },
);

type Part = (after: RegisterCursor | null) => Promise<RegisterRow[]>;

async function* partsOf(part: Part): AsyncIterable<readonly RegisterRow[]> {
  for (let after: RegisterCursor | null = null; ; ) {
    const rows = await part(after);
    yield rows;
    const last = rows.at(-1);
    if (rows.length < PART || !last) return;
    after = cursorOf(last);
  }
}

async function* csvParts(part: Part, business: Business): AsyncIterable<string> {
  yield registerCsvHead();
  for await (const rows of partsOf(part)) yield registerCsvRows(rows, business);
}

async function* jsonParts(part: Part, business: Business): AsyncIterable<string> {
  yield '[';
  let first = true;
  for await (const rows of partsOf(part)) {
    if (rows.length === 0) continue;
    yield `${first ? '\n' : ',\n'}${rows.map((row) => registerJsonRow(row, business)).join(',\n')}`;
    first = false;
  }
  yield '\n]\n';
}
