import type { CalendarDate } from '../dates/calendar-date';
import { dateInZone, instantInZone } from '../dates/zone';

/** Where and when a business charges: its zone, and the hour `HH:MM` of its policy. */
export type ChargingPlace = { readonly zone: string; readonly charging: { readonly hour: string } };

/** The instant at which a day's charges are made (`calculation.md` 8). */
export const chargeInstant = ({ zone, charging }: ChargingPlace, on: CalendarDate): Date =>
  instantInZone(on, charging.hour, zone);

/** The day that it is for a business at an instant. */
export const todayOf = ({ zone }: Pick<ChargingPlace, 'zone'>, now: Date): CalendarDate => dateInZone(now, zone);
