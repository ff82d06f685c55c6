import type { CalendarDate } from '../dates/calendar-date';
import type { Offer, OfferState } from './offer';

/** Why an offer cannot be paid now. */
export type NotOpen = 'paused' | 'closed' | 'over' | 'full';

/**
 * Whether an offer takes a further payment today.
 *
 * @param taken payments that went through, and those under way
 */
export function whyNotOpen(
  offer: Pick<Offer, 'lastOn' | 'mostPayments'>,
  state: OfferState,
  taken: number,
  today: CalendarDate,
): NotOpen | null {
  if (state !== 'open') return state;
  if (offer.lastOn && today > offer.lastOn) return 'over';
  if (offer.mostPayments !== null && taken >= offer.mostPayments) return 'full';
  return null;
}
