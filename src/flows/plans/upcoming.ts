import { addDays, type CalendarDate, isCalendarDate, monthEnd } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { minorDigits } from '@/core/money/currency';
import { decimalText } from '@/core/money/decimal';
import { CHARGE_STATE_WORDS, type ChargeState } from '@/core/plan/state';
import { type Business, businessById, feedVersion } from '@/db/businesses';
import { chargeMonths, type UpcomingAsk, type UpcomingRow, upcomingDays, upcomingPage } from '@/db/charges';
import type { Actor } from '@/db/people';
import { livingMembers, planMovements } from '@/db/plans';
import { readBusiness } from '@/db/transaction';
import { csvText } from '@/documents/csv/write';
import { services } from '@/outside/services';
import { requireRight } from '../access';
import { feedSecret } from './calendar-feed';
import { todayOf } from './plan-setting';

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
export async function upcomingCharges(
  actor: Actor,
  words: UpcomingWords,
  after: { on: CalendarDate; id: string } | null,
): Promise<UpcomingPage> {
  requireRight(actor, 'read');
  const rows = await readBusiness(actor.businessId, (db) =>
    upcomingPage(db, actor.businessId, askOf(words), after, PAGE + 1),
  );
  const last = rows[PAGE - 1];
  return {
    rows: rows.slice(0, PAGE),
    next: rows.length > PAGE && last ? { on: last.chargedOn, id: last.id } : null,
  };
}

/** Counts and sums by day of a month `YYYY-MM`. */
export async function upcomingMonth(actor: Actor, month: string, words: UpcomingWords) {
  requireRight(actor, 'read');
  const from = `${month}-01` as CalendarDate;
  const ask = { ...askOf(words), from, to: monthEnd(from) };
  return readBusiness(actor.businessId, (db) => upcomingDays(db, actor.businessId, ask));
}

/** What the screen over all charges needs beside its rows. */
export async function upcomingSetting(
  actor: Actor,
): Promise<{ business: Business; today: CalendarDate; feed: string }> {
  requireRight(actor, 'read');
  const { clock, publicUrl } = services();
  const now = await clock.now();
  const { business, version } = await readBusiness(actor.businessId, async (db) => ({
    business: await businessById(db, actor.businessId),
    version: await feedVersion(db, actor.businessId),
  }));
  return {
    business,
    today: todayOf(business, now),
    feed: `${publicUrl}/files/calendar/${feedSecret(actor.businessId, version)}`,
  };
}

/** The charges as CSV, for other books. */
export async function upcomingCsv(actor: Actor, words: UpcomingWords): Promise<string> {
  requireRight(actor, 'read');
  return readBusiness(actor.businessId, async (db) => {
    const rows = await upcomingPage(db, actor.businessId, askOf(words), null, MOST_EXPORTED);
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
}

/** A year of figures: expected and received by month and kind, refused and recovered, members gained and lost. */
export async function planFigures(actor: Actor) {
  requireRight(actor, 'read');
  const now = await services().clock.now();
  return readBusiness(actor.businessId, async (db) => {
    const business = await businessById(db, actor.businessId);
    const today = todayOf(business, now);
    const from = `${addDays(today, -270).slice(0, 7)}-01` as CalendarDate;
    return {
      currency: business.currency,
      locale: business.locale,
      months: (await chargeMonths(db, actor.businessId, from)).filter(({ currency }) => currency === business.currency),
      movements: await planMovements(db, actor.businessId, from),
      members: await livingMembers(db, actor.businessId),
      thisMonth: today.slice(0, 7),
      since: shortDate(from, business.locale, { year: true }),
    };
  });
}

/** The same figures as CSV. */
export async function planFiguresCsv(actor: Actor): Promise<string> {
  const { months, currency } = await planFigures(actor);
  const digits = minorDigits(currency);
  return csvText(
    ['month', 'kind', 'currency', 'expected', 'received', 'due', 'refused', 'recovered'],
    months.map((one) => [
      one.month,
      one.kind,
      one.currency,
      decimalText(one.expectedMinor, digits),
      decimalText(one.receivedMinor, digits),
      String(one.due),
      String(one.refused),
      String(one.recovered),
    ]),
  );
}
