import { addDays, type CalendarDate, weekday } from '../dates/calendar-date';
import { instantInZone } from '../dates/zone';

/** When the customer is told that a parcel left: on its mailing date, with the first scan, by hand only, or told already. */
export const NOTICES = ['on-day', 'first-scan', 'held', 'told'] as const;
export type Notice = (typeof NOTICES)[number];

/** What a customer can be told of a parcel's way. */
export const TOLD_OF = ['left', 'door', 'delivered', 'late'] as const;
export type ToldOf = (typeof TOLD_OF)[number];

/** How the business delivers, as it set it. */
export type DeliverSettings = {
  /** `HH:MM` in the business's zone at which notices of a day go out. */
  readonly tellAt: string;
  readonly tell: Readonly<Record<ToldOf, boolean>>;
  /** How a new parcel's notice goes out. */
  readonly usual: Extract<Notice, 'on-day' | 'first-scan' | 'held'>;
  /** Days of the week on which parcels leave, Monday = 1. */
  readonly mailDays: readonly number[];
  /** Sides in whole millimetres of the business's own label. */
  readonly ownLabel: { readonly widthMm: number; readonly heightMm: number };
  readonly labelSheet: 'a6' | 'a4-2' | 'a4-4' | 'own';
  /** Parcels of sales on account leave before they are paid, unless the customer or the invoice says otherwise. */
  readonly shipsFirst: boolean;
  /** So many days after it came something can be asked back on the customer's page; 0 where not. */
  readonly returnDays: number;
  /** The business's own reference for customs, such as an EORI number; empty for none. */
  readonly customsReference: string;
};

export const USUAL_DELIVERY: DeliverSettings = {
  tellAt: '08:00',
  tell: { left: true, door: true, delivered: true, late: true },
  usual: 'on-day',
  mailDays: [1, 2, 3, 4, 5, 6],
  ownLabel: { widthMm: 100, heightMm: 150 },
  labelSheet: 'a6',
  shipsFirst: false,
  returnDays: 30,
  customsReference: '',
};

/** Settings whole: what was kept before a part existed is as usual. */
export const wholeDelivery = (kept: Partial<DeliverSettings>): DeliverSettings => ({
  ...USUAL_DELIVERY,
  ...kept,
  tell: { ...USUAL_DELIVERY.tell, ...kept.tell },
});

/** The instant at which a notice goes out by itself; null where it waits for a scan or a hand, or is out. @param zone IANA name */
export const noticeAt = (
  { notice, mailOn }: { readonly notice: Notice; readonly mailOn: CalendarDate },
  { tellAt }: Pick<DeliverSettings, 'tellAt'>,
  zone: string,
): Date | null => (notice === 'on-day' ? instantInZone(mailOn, tellAt, zone) : null);

/** What is said about a mailing date before it is taken. */
export type DayWarning = 'past' | 'no-mail-day' | 'after-wanted';

/**
 * What somebody should know of a mailing date: that it has passed, that nothing leaves on such a day, that the parcel then comes later
 * than it was wanted.
 *
 * @param promisedOn when the service has it at the door; null while that is not known
 */
export function dayWarnings(
  mailOn: CalendarDate,
  {
    today,
    mailDays,
    wantedBy,
    promisedOn,
  }: {
    readonly today: CalendarDate;
    readonly mailDays: readonly number[];
    readonly wantedBy: CalendarDate | null;
    readonly promisedOn: CalendarDate | null;
  },
): DayWarning[] {
  const there = promisedOn ?? mailOn;
  return [
    ...(mailOn < today ? (['past'] as const) : []),
    ...(mailDays.includes(weekday(mailOn)) ? [] : (['no-mail-day'] as const)),
    ...(wantedBy && there > wantedBy ? (['after-wanted'] as const) : []),
  ];
}

/** The next day on which parcels leave, from a day on. @param mailDays none counts as every day */
export function nextMailDay(from: CalendarDate, mailDays: readonly number[]): CalendarDate {
  for (let ahead = 0; ahead < 7; ahead++) {
    const day = addDays(from, ahead);
    if (mailDays.length === 0 || mailDays.includes(weekday(day))) return day;
  }
  return from;
}
