import type { Business } from '@/core/business/business';
import { addDays, type CalendarDate, earlierDay, laterDay } from '@/core/dates/calendar-date';
import { chargesBeyond } from '@/core/plan/beyond';
import type { Charge } from '@/core/plan/charge';
import { todayOf } from '@/core/plan/days';
import { lastWrittenDay, type UpcomingAsk, type UpcomingRow, upcomingDays, upcomingPage } from '@/db/charges';
import { plansBeyond } from '@/db/plans';
import type { Db } from '@/db/pool';
import { idFor } from '@/flows/door/id-for';
import { keptReasons } from './plan-ahead';
import { planContext, planReadings } from './plan-setting';

/** How far a list without an end is worked out: nobody turns pages for longer. */
const FARTHEST_DAYS = 3660;
/** How far sums and files without an end speak, unless charges are written down beyond it. */
const YEAR_DAYS = 365;

type Span = { readonly from: CalendarDate; readonly to: CalendarDate };
type Place = { readonly on: CalendarDate; readonly id: string };

const looksAhead = ({ states, notCarried }: UpcomingAsk): boolean =>
  !notCarried && (states.length === 0 || states.includes('upcoming'));

/** What a date of a plan is known by, whether its charge is written down or not. */
export const idOfDate = ({ planId, part, nominal }: Pick<Charge, 'planId' | 'part' | 'nominal'>): string =>
  idFor(`charge ${planId} ${part} ${nominal}`);

/** What running plans charge within a span beyond what is written down, by day. */
async function beyond(db: Db, business: Business, words: string, span: Span): Promise<UpcomingRow[]> {
  if (span.to < span.from) return [];
  const plans = await plansBeyond(db, words, span.to);
  if (plans.length === 0) return [];
  const read = await planReadings(db, business, plans);
  const today = todayOf(business, db.now);
  const rows = plans.flatMap((plan) => {
    const { sums } = read(plan);
    const context = planContext(business, plan, today);
    return chargesBeyond(plan.terms, sums, context, plan.writtenTo, span).map((charge): UpcomingRow => {
      const { part, nominal, chargedOn, amountMinor } = charge;
      return {
        id: idOfDate({ planId: plan.id, part, nominal }),
        planId: plan.id,
        customerId: plan.customerId,
        part,
        nominal,
        chargedOn,
        amountMinor,
        currency: plan.currency,
        reasons: keptReasons(charge),
        state: 'upcoming',
        note: null,
        noticeOn: null,
        actAt: null,
        round: 0,
        attempts: 0,
        tried: [],
        cardId: null,
        lastReason: null,
        invoiceId: null,
        paymentId: null,
        settledAt: null,
        carriedAt: null,
        carriedBy: null,
        plan: plan.terms.name,
        planNumber: plan.number,
        planKind: plan.terms.kind,
        planState: plan.state,
        customer: plan.customer,
        email: plan.email,
        pay: plan.terms.pay,
        reference: plan.reference,
      };
    });
  });
  return rows.sort(byPlace);
}

const placeOf = ({ chargedOn, id }: UpcomingRow): Place => ({ on: chargedOn, id });
const byPlace = (a: UpcomingRow, b: UpcomingRow): number => comparePlaces(placeOf(a), placeOf(b));
const comparePlaces = (a: Place, b: Place): number =>
  a.on !== b.on ? (a.on < b.on ? -1 : 1) : a.id === b.id ? 0 : a.id < b.id ? -1 : 1;

/** A page of charges by date after a place in the list: those that are written down, and those that follow from plans without end. */
export async function chargesByDate(
  db: Db,
  business: Business,
  ask: UpcomingAsk,
  after: Place | null,
  limit: number,
): Promise<UpcomingRow[]> {
  const written = await upcomingPage(db, ask, after, limit);
  if (!looksAhead(ask)) return written;
  const today = todayOf(business, db.now);
  const starts = laterDay(today, laterDay(ask.from ?? today, after?.on ?? today));
  const full = written.length === limit ? written.at(-1)?.chargedOn : undefined;
  const end = full ?? ask.to ?? addDays(today, FARTHEST_DAYS);
  // A page is soon full: looked at further and further ahead until it is, or nothing can follow.
  for (let days = 92; ; days *= 4) {
    const reach = addDays(starts, days);
    const to = earlierDay(reach, end);
    const more = await beyond(db, business, ask.words, { from: starts, to });
    const rows = more.filter((row) => !after || comparePlaces(placeOf(row), after) > 0);
    const before = written.filter(({ chargedOn }) => chargedOn <= to);
    if (to < end && before.length + rows.length < limit) continue;
    return [...(to < end ? before : written), ...rows].sort(byPlace).slice(0, limit);
  }
}

/** Counts and sums of charges by day, currency and state within a span, what is not written down yet included. */
export async function chargeDays(
  db: Db,
  business: Business,
  ask: UpcomingAsk & Span,
): Promise<Awaited<ReturnType<typeof upcomingDays>>> {
  const written = await upcomingDays(db, ask);
  if (!looksAhead(ask)) return written;
  const today = todayOf(business, db.now);
  const days = new Map(written.map((day) => [`${day.on} ${day.currency} ${day.state}`, day]));
  const from = laterDay(ask.from, today);
  for (const { chargedOn: on, currency, amountMinor } of await beyond(db, business, ask.words, { from, to: ask.to })) {
    const key = `${on} ${currency} upcoming`;
    const { count, minor } = days.get(key) ?? { count: 0, minor: 0n };
    days.set(key, { on, currency, state: 'upcoming', count: count + 1, minor: minor + amountMinor });
  }
  return [...days.values()].sort((a, b) => (a.on < b.on ? -1 : a.on > b.on ? 1 : 0));
}

/** The same ask with an end: a year from today, or the last charge that is written down where that is later. */
export async function withEnd(db: Db, business: Business, ask: UpcomingAsk): Promise<UpcomingAsk> {
  if (ask.to) return ask;
  const year = addDays(todayOf(business, db.now), YEAR_DAYS);
  const last = await lastWrittenDay(db);
  return { ...ask, to: laterDay(last ?? year, year) };
}

/** What running plans without an end charge by day within a span beyond what is written down. */
export const daysBeyond = async (db: Db, business: Business, span: Span) =>
  (await beyond(db, business, '', span)).map(({ chargedOn: on, currency, amountMinor: minor, planKind: kind }) => ({
    on,
    currency,
    count: 1,
    minor,
    kind,
  }));
