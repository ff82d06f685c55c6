import type { CalendarDate } from '../dates/calendar-date';
import { daysBetween } from '../dates/calendar-date';
import { clockTime } from '../dates/date-text';
import { dateInZone } from '../dates/zone';
import type { WayPlace } from './shipment';

/** Where something is drawn: days from the first on as a fraction, 0 its midnight; rows from 0. */
export type WayPoint = { readonly day: number; readonly row: number };

/** A way as days across and places down: what was scanned, lay still, and is promised. */
export type WayPicture = {
  readonly first: CalendarDate;
  readonly days: number;
  readonly rows: readonly {
    readonly place: string;
    readonly from: Date | null;
    readonly to: Date | null;
    readonly isLast: boolean;
  }[];
  readonly scans: readonly WayPoint[];
  /** From the last scan on: lying still until now. */
  readonly still: { readonly from: WayPoint; readonly to: number } | null;
  /** The promised day at the door, as its noon. */
  readonly promised: number | null;
  /** How many days it is late; 0 where it is not. */
  readonly late: number;
  readonly now: number;
};

const DAY_MINUTES = 1440;
const LEAST_DAYS = 8;

/** How far into the days a moment is, by the clock of the business. */
const dayOf = (at: Date, first: CalendarDate, zone: string): number => {
  const [hours = 0, minutes = 0] = clockTime(at, zone).split(':').map(Number);
  return daysBetween(first, dateInZone(at, zone)) + (hours * 60 + minutes) / DAY_MINUTES;
};

/**
 * Sets a way out as a picture.
 *
 * @param begun when its label was bought: the first row @param door the name of the last row
 * @param ended whether nothing more comes: then nothing lies still
 */
export function wayPicture(
  way: readonly WayPlace[],
  {
    begun,
    door,
    promisedOn,
    now,
    zone,
    ended,
  }: {
    readonly begun: { readonly place: string; readonly at: Date };
    readonly door: string;
    readonly promisedOn: CalendarDate | null;
    readonly now: Date;
    readonly zone: string;
    readonly ended: boolean;
  },
): WayPicture {
  const first = dateInZone(begun.at, zone);
  const today = dateInZone(now, zone);
  const lastSeen = way.at(-1)?.from ?? begun.at;
  const until = [ended ? dateInZone(lastSeen, zone) : today, promisedOn ?? today].sort().at(-1) ?? today;
  const days = Math.max(LEAST_DAYS, daysBetween(first, until) + 2);
  const isThere = way.at(-1)?.scan === 'delivered';
  const places = [
    { place: begun.place, from: begun.at, to: way[0]?.from ?? null },
    ...way.map(({ place, from, to }) => ({ place, from, to })),
    ...(isThere ? [] : [{ place: door, from: null, to: null }]),
  ];
  const scanned = places.filter(({ from }) => from !== null);
  const scans = scanned.map(({ from }, row) => ({ day: dayOf(from ?? now, first, zone), row }));
  const last = scans.at(-1);
  const late = promisedOn && !ended && promisedOn < today ? daysBetween(promisedOn, today) : 0;
  return {
    first,
    days,
    rows: places.map((one, at) => ({ ...one, isLast: at === scanned.length - 1 })),
    scans,
    still: last && !ended ? { from: last, to: dayOf(now, first, zone) } : null,
    promised: promisedOn ? daysBetween(first, promisedOn) + 0.5 : null,
    late,
    now: dayOf(now, first, zone),
  };
}
