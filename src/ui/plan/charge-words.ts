import type { CalendarDate } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';

/** A charge as the calendar draws it; `minor` in minor units. */
export type DrawnCharge = {
  readonly part: 'deposit' | 'period';
  readonly nominal: CalendarDate;
  readonly chargedOn: CalendarDate;
  readonly minor: number;
  readonly reasons: readonly {
    readonly kind: string;
    readonly moved?: string;
    readonly wanted?: number;
    readonly minor?: number | bigint;
  }[];
};

/** Why a charge is on its day or for its sum, in words; empty where nothing is unusual. */
export function reasonWords(charge: DrawnCharge, currency: string, locale: string): string {
  const was = shortDate(charge.nominal, locale, { weekday: true });
  return charge.reasons
    .map((reason) => {
      switch (reason.kind) {
        case 'month-end':
          return `no ${reason.wanted}${ordinal(reason.wanted ?? 0)}`;
        case 'weekend':
          return `was ${was}`;
        case 'holiday':
          return `day off, was ${was}`;
        case 'at-start':
          return 'at the start';
        case 'deposit':
          return 'deposit';
        case 'free':
          return 'first one free';
        case 'set-up':
          return `with ${moneyText(money(BigInt(reason.minor ?? 0), currency), locale)} set-up`;
        default:
          return '';
      }
    })
    .filter(Boolean)
    .join(', ');
}

const ordinal = (day: number): string => (day === 31 ? 'st' : day === 22 || day === 2 ? 'nd' : 'th');
