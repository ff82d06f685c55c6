import { RuleError } from '../rule-error';
import type { CalendarDate } from './calendar-date';

const formatters = new Map<string, Intl.DateTimeFormat>();

function formatter(zone: string): Intl.DateTimeFormat {
  const known = formatters.get(zone);
  if (known) return known;
  try {
    const made = new Intl.DateTimeFormat('en-CA', {
      timeZone: zone,
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
    });
    formatters.set(zone, made);
    return made;
  } catch {
    throw new RuleError('bad_zone', `${zone} is not a time zone`);
  }
}

/** The civil day on which an instant falls in an IANA time zone. @throws RuleError `bad_zone` */
export function dateInZone(instant: Date, zone: string): CalendarDate {
  const part = new Map(
    formatter(zone)
      .formatToParts(instant)
      .map(({ type, value }) => [type, value]),
  );
  return `${part.get('year')?.padStart(4, '0')}-${part.get('month')}-${part.get('day')}` as CalendarDate;
}

const clocks = new Map<string, Intl.DateTimeFormat>();
const ZONE_NAME = /^[A-Z][\w+-]*(\/[A-Z][\w+-]*)*$/;
const MINUTE_MS = 60_000;
/** No zone's clock differs from UTC by more. */
const WINDOW_MS = 36 * 60 * MINUTE_MS;

function clock(zone: string): Intl.DateTimeFormat {
  const known = clocks.get(zone);
  if (known) return known;
  // Names are compared exactly: what the platform would also take (other letter case, a bare offset) is none.
  if (!ZONE_NAME.test(zone)) throw new RuleError('bad_zone', `${zone} is not a time zone`);
  try {
    const made = new Intl.DateTimeFormat('en-US', {
      timeZone: zone,
      hourCycle: 'h23',
      year: 'numeric',
      month: 'numeric',
      day: 'numeric',
      hour: 'numeric',
      minute: 'numeric',
      second: 'numeric',
    });
    clocks.set(zone, made);
    return made;
  } catch {
    throw new RuleError('bad_zone', `${zone} is not a time zone`);
  }
}

/** What a zone's clock shows at an instant, written as if it were UTC; milliseconds. */
function localMs(instant: number, format: Intl.DateTimeFormat): number {
  const part = new Map(format.formatToParts(instant).map(({ type, value }) => [type, Number(value)]));
  const at = (type: Intl.DateTimeFormatPartTypes) => part.get(type) ?? 0;
  return Date.UTC(at('year'), at('month') - 1, at('day'), at('hour'), at('minute'), at('second'));
}

const instants = new Map<string, Date>();
const MOST_INSTANTS = 2_000;

/**
 * The instant at which a zone's clock shows `hour` (`09:00`) on a day: in a spring gap the first instant that exists after
 * it (also where a zone leaves out a whole day), in an autumn overlap the earlier one.
 *
 * @throws RuleError `bad_zone`, `bad_input`
 */
export function instantInZone(date: CalendarDate, hour: string, zone: string): Date {
  // A business charges thousands of plans at the same few instants, and working one out is slow.
  const key = `${date} ${hour} ${zone}`;
  const known = instants.get(key) ?? workOutInstant(date, hour, zone);
  if (instants.size >= MOST_INSTANTS) instants.clear();
  instants.set(key, known);
  return new Date(known);
}

function workOutInstant(date: CalendarDate, hour: string, zone: string): Date {
  const time = /^([01]\d|2[0-3]):([0-5]\d)$/.exec(hour);
  if (!time) throw new RuleError('bad_input', 'hour: from 00:00 to 23:59');
  const format = clock(zone);
  const wanted = Date.parse(`${date}T${hour}:00Z`);
  const offsetAt = (instant: number) => localMs(instant, format) - instant;
  const offsets = new Set([offsetAt(wanted - WINDOW_MS), offsetAt(wanted), offsetAt(wanted + WINDOW_MS)]);
  const fitting = [...offsets]
    .map((offset) => wanted - offset)
    .filter((instant) => localMs(instant, format) === wanted);
  if (fitting.length > 0) return new Date(Math.min(...fitting));
  // A gap: the clock jumps over it, so the first instant at which it shows something later is found by halving.
  let [before, after] = [wanted - WINDOW_MS, wanted + WINDOW_MS];
  while (after - before > 1000) {
    const middle = before + Math.floor((after - before) / 2000) * 1000;
    if (localMs(middle, format) >= wanted) after = middle;
    else before = middle;
  }
  return new Date(after);
}

/** An instant as a zone's clock shows it, to the second, with its distance from UTC (ISO 8601). @throws RuleError `bad_zone` */
export function zonedText(instant: Date, zone: string): string {
  const seconds = Math.floor(instant.getTime() / 1000) * 1000;
  const local = localMs(seconds, clock(zone));
  const minutes = Math.round((local - seconds) / MINUTE_MS);
  const two = (count: number) => String(count).padStart(2, '0');
  const offset = `${minutes < 0 ? '-' : '+'}${two(Math.floor(Math.abs(minutes) / 60))}:${two(Math.abs(minutes) % 60)}`;
  return `${new Date(local).toISOString().slice(0, 19)}${offset}`;
}
