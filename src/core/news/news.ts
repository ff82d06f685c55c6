/** What somebody at the desk wants to hear of, how, and when not. */
import { type Business, isQuiet } from '../business/business';
import { addDays } from '../dates/calendar-date';
import { clockTime } from '../dates/date-text';
import { dateInZone, instantInZone } from '../dates/zone';
import type { TimelineEvent } from '../timeline/timeline';

/** What can be heard of, in the order in which it is offered, and how it is called. */
export const NEWS_KINDS = {
  paid: 'A payment comes in',
  ordered: 'Somebody orders by a link, page or button',
  refused: 'A payment or charge is refused, or comes back',
  disputed: 'A payment is disputed, or a dispute is decided',
  asked: 'A customer asks something, or asks for a change',
  agreed: 'A customer approves a file, or agrees to a plan',
  seen: 'A customer opens an invoice',
  undelivered: 'A mail does not arrive',
  parcel: 'A parcel is late, lost, damaged or comes back',
  ended: 'A plan pauses, ends, or its authorisation is withdrawn',
} as const;
export type NewsKind = keyof typeof NEWS_KINDS;
export const ALL_NEWS_KINDS = Object.keys(NEWS_KINDS) as NewsKind[];

export const NEWS_WAYS = ['mail', 'browser'] as const;
export type NewsWay = (typeof NEWS_WAYS)[number];

/** Kind of news to the ways in which it is wanted; a kind that is not named is not wanted. */
export type WantedNews = Readonly<Partial<Record<NewsKind, readonly NewsWay[]>>>;

const OF: Partial<Record<TimelineEvent['kind'], NewsKind>> = {
  paid: 'paid',
  'charge-made': 'paid',
  ordered: 'ordered',
  refused: 'refused',
  'charge-not-made': 'refused',
  'debit-returned': 'refused',
  disputed: 'disputed',
  'dispute-won': 'disputed',
  'dispute-lost': 'disputed',
  question: 'asked',
  'change-asked': 'asked',
  'file-approved': 'agreed',
  authorised: 'agreed',
  seen: 'seen',
  'mail-failed': 'undelivered',
  bounced: 'undelivered',
  'not-sent-in-time': 'undelivered',
  'plan-paused': 'ended',
  'plan-ended': 'ended',
  withdrawn: 'ended',
  'parcel-trouble': 'parcel',
  'return-asked': 'asked',
  'claim-paid': 'parcel',
  'claim-refused': 'parcel',
};

/** Which news a line of a timeline is; null where it is none. */
export const newsKindOf = ({ kind }: Pick<TimelineEvent, 'kind'>): NewsKind | null => OF[kind] ?? null;

/** What comes within so many minutes goes in one mail. */
export const GATHERED_MINUTES = 2;

/** News are kept for so many days. */
export const NEWS_DAYS = 60;

/** Hours without news, as `HH:MM` in the business's zone; both alike: none. */
export type QuietHours = Pick<Business, 'quietFrom' | 'quietTo'>;

/**
 * When it is no longer quiet: the instant itself where it is not. An hour that a clock leaps over ends with the leap.
 *
 * @param zone the business's, IANA
 */
export function afterQuiet(at: Date, quiet: QuietHours, zone: string): Date {
  if (!isQuiet(quiet, clockTime(at, zone))) return at;
  const to = quiet.quietTo.slice(0, 5);
  const today = instantInZone(dateInZone(at, zone), to, zone);
  return today > at ? today : instantInZone(addDays(dateInZone(at, zone), 1), to, zone);
}

/** From when on news of now are mailed: gathered for some minutes, and not before the quiet hours are over. */
export const newsMailedFrom = (now: Date, quiet: QuietHours, zone: string): Date =>
  afterQuiet(new Date(now.getTime() + GATHERED_MINUTES * 60_000), quiet, zone);
