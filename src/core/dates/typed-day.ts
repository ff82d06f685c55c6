import { type DayWay, dayWay } from '../writing/writing';
import { type CalendarDate, isCalendarDate } from './calendar-date';

type Piece = 'year' | 'month' | 'day';
type Order = { readonly pieces: readonly Piece[]; readonly sign: string };
const orders = new Map<string, Order>();

const OWN: Readonly<Record<DayWay, Order>> = {
  dmy: { pieces: ['day', 'month', 'year'], sign: '/' },
  dots: { pieces: ['day', 'month', 'year'], sign: '.' },
  mdy: { pieces: ['month', 'day', 'year'], sign: '/' },
  iso: { pieces: ['year', 'month', 'day'], sign: '-' },
};

/** In which order, and with which sign between, a locale writes a day in figures. */
function orderOf(locale: string): Order {
  const own = dayWay(locale);
  if (own) return OWN[own];
  const known = orders.get(locale);
  if (known) return known;
  const parts = new Intl.DateTimeFormat(locale, {
    calendar: 'gregory',
    numberingSystem: 'latn',
    timeZone: 'UTC',
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
  }).formatToParts(new Date('2026-11-22T12:00:00Z'));
  const pieces = parts.flatMap(({ type }) => (type === 'year' || type === 'month' || type === 'day' ? [type] : []));
  // Some write a mark of direction beside it, which nobody types.
  const sign = parts.find(({ type }) => type === 'literal')?.value.match(/[./-]/)?.[0] ?? '-';
  const order = { pieces, sign };
  orders.set(locale, order);
  return order;
}

/** A day in figures as its reader writes it: `04/03/2026`, `03.04.2026`; what is no day stays as it is. */
export function dayFigures(date: string, locale: string): string {
  if (!isCalendarDate(date)) return date;
  const [year = '', month = '', day = ''] = date.split('-');
  const { pieces, sign } = orderOf(locale);
  return pieces.map((piece) => ({ year, month, day })[piece]).join(sign);
}

/** What stands in an empty field: `MM/DD/YYYY`. */
export function dayPattern(locale: string): string {
  const { pieces, sign } = orderOf(locale);
  return pieces.map((piece) => ({ year: 'YYYY', month: 'MM', day: 'DD' })[piece]).join(sign);
}

/**
 * Reads a day that was typed in the locale's order, with any sign between (`4/3/26`, `3. 4. 2026`), or as `2026-04-03`; two figures
 * of a year are of this century. Null where it is no day of the calendar.
 */
export function typedDay(text: string, locale: string): CalendarDate | null {
  const figures = text
    .trim()
    .split(/[^\d]+/)
    .filter(Boolean);
  if (figures.length !== 3 || /[^\d\s./-]/.test(text)) return null;
  const pieces: readonly Piece[] = figures[0]?.length === 4 ? ['year', 'month', 'day'] : orderOf(locale).pieces;
  const of = (piece: Piece): string => figures[pieces.indexOf(piece)] ?? '';
  const year = of('year').length === 2 ? `20${of('year')}` : of('year');
  const date = `${year}-${of('month').padStart(2, '0')}-${of('day').padStart(2, '0')}`;
  return isCalendarDate(date) ? date : null;
}
