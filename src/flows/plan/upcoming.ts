import { addDays, type CalendarDate, isCalendarDate, monthEnd } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { byCurrency } from '@/core/money/by-currency';
import { todayOf } from '@/core/plan/days';
import { CHARGE_STATE_WORDS, type ChargeState } from '@/core/plan/state';
import { type Business, businessById, feedVersion } from '@/db/businesses';
import { type ChargeMonth, chargeMonths, type UpcomingAsk, type UpcomingRow } from '@/db/charges';
import { livingMembers, planMovements } from '@/db/plans';
import type { Db } from '@/db/pool';
import { csvText, sumCell } from '@/documents/csv/write';
import { desk } from '@/flows/door/operation';
import { noteExport } from '@/flows/log/log';
import { services } from '@/outside/services';
import { chargeDays, chargesByDate, daysBeyond, withEnd } from './beyond';
import { feedSecret } from './calendar-feed';

export type { UpcomingRow };

const PAGE = 60;
const MOST_EXPORTED = 100_000;

/** What a screen asks of the charges; empty texts mean all. */
export type UpcomingWords = {
  readonly words: string;
  readonly state: ChargeState | '';
  readonly from: string;
  readonly to: string;
  readonly notCarried: boolean;
};

const day = (text: string): CalendarDate | null => (isCalendarDate(text) ? text : null);

const askOf = ({ words, state, from, to, notCarried }: UpcomingWords): UpcomingAsk => ({
  words: words.trim(),
  states: state ? [state] : [],
  from: day(from),
  to: day(to),
  notCarried,
});

export type UpcomingPage = {
  readonly rows: readonly UpcomingRow[];
  readonly next: { readonly on: CalendarDate; readonly id: string } | null;
};

/** A page of charges of all plans by date. */
export const upcomingCharges = desk('see').run(
  async (ctx, words: UpcomingWords, after: { on: CalendarDate; id: string } | null): Promise<UpcomingPage> => {
    const rows = await ctx.read(async (db) => chargesByDate(db, await businessById(db), askOf(words), after, PAGE + 1));
    const last = rows[PAGE - 1];
    return {
      rows: rows.slice(0, PAGE),
      next: rows.length > PAGE && last ? { on: last.chargedOn, id: last.id } : null,
    };
  },
);

/** Counts and sums by day of a month `YYYY-MM`. */
export const upcomingMonth = desk('see').run(async (ctx, month: string, words: UpcomingWords) => {
  const from = `${month}-01` as CalendarDate;
  const ask = { ...askOf(words), from, to: monthEnd(from) };
  return ctx.read(async (db) => chargeDays(db, await businessById(db), ask));
});

/** What the screen over all charges needs beside its rows. */
export const upcomingSetting = desk('see').run(
  async (ctx): Promise<{ business: Business; today: CalendarDate; feed: string }> => {
    const { publicUrl } = services();
    const { business, version } = await ctx.read(async (db) => ({
      business: await businessById(db),
      version: await feedVersion(db),
    }));
    return {
      business,
      today: todayOf(business, ctx.now),
      feed: `${publicUrl}/files/calendar/${feedSecret(ctx.businessId, version)}`,
    };
  },
);

/** The charges as CSV, for other books; without a last day those of the coming year, and beyond it what is written down. */
export const upcomingCsv = desk('see').run(async (ctx, words: UpcomingWords): Promise<string> => {
  const { business, rows } = await ctx.read(async (db) => {
    const own = await businessById(db);
    const asked = await withEnd(db, own, askOf(words));
    return { business: own, rows: await chargesByDate(db, own, asked, null, MOST_EXPORTED) };
  });
  await ctx.keep((tx) => noteExport(tx, 'Upcoming charges', ''));
  return csvText(
    ['date', 'customer', 'plan', 'number', 'reference', 'amount', 'currency', 'state', 'carried over'],
    rows.map((row) => [
      row.chargedOn,
      row.customer,
      row.plan,
      row.planNumber,
      row.reference,
      sumCell(row.amountMinor, row.currency),
      row.currency,
      CHARGE_STATE_WORDS[row.state],
      row.carriedAt ? `${dateInZone(row.carriedAt, business.zone)}, ${row.carriedBy}` : '',
    ]),
  );
});

/** The months with what follows from plans without an end, up to the last month that is written down or a year from now. */
async function withBeyond(db: Db, business: Business, written: readonly ChargeMonth[]): Promise<ChargeMonth[]> {
  const today = todayOf(business, db.now);
  const year = addDays(today, 365).slice(0, 7);
  const last = [year, ...written.map(({ month }) => month)].sort().at(-1) ?? year;
  const months = new Map(written.map((one) => [`${one.month} ${one.kind} ${one.currency}`, one]));
  const span = { from: today, to: monthEnd(`${last}-01` as CalendarDate) };
  for (const { on, kind, currency, minor } of await daysBeyond(db, business, span)) {
    const month = on.slice(0, 7);
    const key = `${month} ${kind} ${currency}`;
    const none = { expectedMinor: 0n, openMinor: 0n, receivedMinor: 0n, due: 0, refused: 0, recovered: 0 };
    const one = months.get(key) ?? { month, kind, currency, ...none };
    months.set(key, { ...one, expectedMinor: one.expectedMinor + minor, openMinor: one.openMinor + minor });
  }
  return [...months.values()].sort((a, b) => (a.month < b.month ? -1 : a.month > b.month ? 1 : 0));
}

/** A year of figures: expected and received by month and kind, refused and recovered, members gained and lost. */
export const planFigures = desk('sums').read(async (db) => {
  const business = await businessById(db);
  const today = todayOf(business, db.now);
  const from = `${addDays(today, -270).slice(0, 7)}-01` as CalendarDate;
  const written = await chargeMonths(db, from, business.zone);
  const months = byCurrency(await withBeyond(db, business, written), business.currency);
  return {
    currency: business.currency,
    locale: business.deskLocale,
    months: months.own,
    /** The same in other currencies, this month. */
    beside: [...months.others].map(([currency, list]) => {
      const current = list.filter(({ month }) => month === today.slice(0, 7));
      const sum = (of: (one: (typeof list)[number]) => bigint) => current.reduce((all, one) => all + of(one), 0n);
      return {
        currency,
        received: sum(({ receivedMinor }) => receivedMinor),
        expected: sum(({ expectedMinor }) => expectedMinor),
      };
    }),
    all: [...months.own, ...[...months.others.values()].flat()],
    movements: await planMovements(db, from),
    members: await livingMembers(db),
    thisMonth: today.slice(0, 7),
    since: shortDate(from, business.deskLocale, { year: true }),
  };
});

/** The same figures as CSV. */
export const planFiguresCsv = desk('sums').run(async (ctx): Promise<string> => {
  const { all } = await planFigures(ctx.actor);
  return csvText(
    ['month', 'kind', 'currency', 'expected', 'received', 'due', 'refused', 'recovered'],
    all.map((one) => [
      one.month,
      one.kind,
      one.currency,
      sumCell(one.expectedMinor, one.currency),
      sumCell(one.receivedMinor, one.currency),
      String(one.due),
      String(one.refused),
      String(one.recovered),
    ]),
  );
});
