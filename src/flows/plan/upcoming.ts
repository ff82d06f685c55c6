import { addDays, type CalendarDate, isCalendarDate, monthEnd } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { byCurrency } from '@/core/money/by-currency';
import { minorDigits } from '@/core/money/currency';
import { decimalText } from '@/core/money/decimal';
import { todayOf } from '@/core/plan/days';
import { CHARGE_STATE_WORDS, type ChargeState } from '@/core/plan/state';
import { type Business, businessById, feedVersion } from '@/db/businesses';
import { chargeMonths, type UpcomingAsk, type UpcomingRow, upcomingDays, upcomingPage } from '@/db/charges';
import { livingMembers, planMovements } from '@/db/plans';
import { csvText } from '@/documents/csv/write';
import { desk } from '@/flows/door/operation';
import { services } from '@/outside/services';
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
    const rows = await ctx.read((db) => upcomingPage(db, askOf(words), after, PAGE + 1));
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
  return ctx.read((db) => upcomingDays(db, ask));
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

/** The charges as CSV, for other books. */
export const upcomingCsv = desk('see').read(async (db, words: UpcomingWords): Promise<string> => {
  const rows = await upcomingPage(db, askOf(words), null, MOST_EXPORTED);
  return csvText(
    ['date', 'customer', 'plan', 'number', 'reference', 'amount', 'currency', 'state', 'carried over'],
    rows.map((row) => [
      row.chargedOn,
      row.customer,
      row.plan,
      row.planNumber,
      row.reference,
      decimalText(row.amountMinor, minorDigits(row.currency)),
      row.currency,
      CHARGE_STATE_WORDS[row.state],
      row.carriedAt ? `${row.carriedAt.toISOString().slice(0, 10)}, ${row.carriedBy}` : '',
    ]),
  );
});

/** A year of figures: expected and received by month and kind, refused and recovered, members gained and lost. */
export const planFigures = desk('see').read(async (db) => {
  const business = await businessById(db);
  const today = todayOf(business, db.now);
  const from = `${addDays(today, -270).slice(0, 7)}-01` as CalendarDate;
  const months = byCurrency(await chargeMonths(db, from), business.currency);
  return {
    currency: business.currency,
    locale: business.locale,
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
    since: shortDate(from, business.locale, { year: true }),
  };
});

/** The same figures as CSV. */
export const planFiguresCsv = desk('see').run(async (ctx): Promise<string> => {
  const { all } = await planFigures(ctx.actor);
  return csvText(
    ['month', 'kind', 'currency', 'expected', 'received', 'due', 'refused', 'recovered'],
    all.map((one) => [
      one.month,
      one.kind,
      one.currency,
      decimalText(one.expectedMinor, minorDigits(one.currency)),
      decimalText(one.receivedMinor, minorDigits(one.currency)),
      String(one.due),
      String(one.refused),
      String(one.recovered),
    ]),
  );
});
