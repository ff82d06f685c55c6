/** How long things are kept: what the law wants kept, what the business decides, and when each kind is forgotten. */
import { addDays, type CalendarDate } from '../dates/calendar-date';

/** What a business decides on how long things are kept. */
export type KeepingRule = {
  /** Invoices, receipts, credit notes and what the bank says of them: full calendar years after the one they are of. */
  readonly paperYears: number;
  /** Checkouts that were begun and never paid, and requests that were withdrawn, in days. */
  readonly checkoutDays: number;
  /** What mails said and to whom they went, in months of 30 days; when they went and that they arrived stays on the paper's timeline. */
  readonly mailMonths: number;
  /** What other programs were told, in days. */
  readonly programDays: number;
};

export type KeepingKind = keyof KeepingRule;

/** The bounds of each, beside what the law says of papers. */
export const KEEPING_BOUNDS: Readonly<Record<KeepingKind, { readonly least: number; readonly most: number }>> = {
  paperYears: { least: 1, most: 30 },
  checkoutDays: { least: 1, most: 365 },
  mailMonths: { least: 1, most: 120 },
  programDays: { least: 4, most: 365 },
};

/** Years for which papers are kept where nothing is known of a country's law. */
const USUAL_YEARS = 10;

/**
 * For how many full years after the one they are of tax and commercial law want invoices kept, by country (ISO 3166-1): the longer
 * where both say something. The business may keep them longer, not shorter.
 */
const LAW_YEARS: Readonly<Record<string, number>> = {
  AT: 7,
  AU: 5,
  BE: 10,
  CA: 6,
  CH: 10,
  DE: 8,
  DK: 5,
  ES: 6,
  FI: 6,
  FR: 10,
  GB: 6,
  IE: 6,
  IT: 10,
  LU: 10,
  NL: 7,
  NO: 5,
  NZ: 7,
  PL: 5,
  PT: 10,
  SE: 7,
  US: 7,
};

/** The least years of a country's law. @param country ISO 3166-1, two letters */
export const lawYears = (country: string): number => LAW_YEARS[country] ?? USUAL_YEARS;

/** What holds where the business has decided nothing. @param kept what it decided, perhaps before another kind was there */
export function keepingRule(kept: Partial<KeepingRule>, country: string): KeepingRule {
  const rule = { paperYears: lawYears(country), checkoutDays: 30, mailMonths: 24, programDays: 30, ...kept };
  // Who moves to a stricter country keeps for as long as that one says.
  return { ...rule, paperYears: Math.max(rule.paperYears, lawYears(country)) };
}

export type KeepingProblem = { readonly field: KeepingKind; readonly words: string };

/** What is wrong with a rule, at its places; nothing where it can hold. */
export function keepingProblems(rule: KeepingRule, country: string): KeepingProblem[] {
  return (Object.keys(KEEPING_BOUNDS) as KeepingKind[]).flatMap((field) => {
    const { most, ...bounds } = KEEPING_BOUNDS[field];
    const least = field === 'paperYears' ? Math.max(bounds.least, lawYears(country)) : bounds.least;
    const value = rule[field];
    if (Number.isInteger(value) && value >= least && value <= most) return [];
    const why = field === 'paperYears' && value < least ? ' The law where you are wants them for that long.' : '';
    return [{ field, words: `A whole number from ${least} to ${most}.${why}` }];
  });
}

/** The first day whose papers are still kept: what is of an earlier one is forgotten. The years count from the end of the paper's own. */
export const papersKeptFrom = (today: CalendarDate, { paperYears }: Pick<KeepingRule, 'paperYears'>): CalendarDate =>
  `${String(Number(today.slice(0, 4)) - paperYears).padStart(4, '0')}-01-01` as CalendarDate;

/** The last day on which a paper is kept. @param of the day that it is of */
export const keptUntil = (of: CalendarDate, { paperYears }: Pick<KeepingRule, 'paperYears'>): CalendarDate =>
  `${Number(of.slice(0, 4)) + paperYears}-12-31` as CalendarDate;

/** The first day on which a business that is closed is erased: when the last of its papers need not be kept any more. */
export const eraseOn = (closedOn: CalendarDate, rule: Pick<KeepingRule, 'paperYears'>): CalendarDate =>
  addDays(keptUntil(closedOn, rule), 1);

const DAY_MS = 86_400_000;
/** Pictures of documents that were taken and never sent. */
const PICTURE_DAYS = 30;

/** The instants before which each kind is forgotten. */
export type Edges = {
  readonly checkouts: Date;
  readonly mails: Date;
  readonly programs: Date;
  readonly pictures: Date;
};

export const edgesOf = (now: Date, { checkoutDays, mailMonths, programDays }: KeepingRule): Edges => {
  const before = (days: number) => new Date(now.getTime() - days * DAY_MS);
  return {
    checkouts: before(checkoutDays),
    mails: before(mailMonths * 30),
    programs: before(programDays),
    pictures: before(PICTURE_DAYS),
  };
};

/** A business is closed when its data was taken along no more than so many days ago. */
export const TAKEN_ALONG_DAYS = 30;

/** What stands where a name stood. */
export const ERASED_NAME = 'Erased customer';
