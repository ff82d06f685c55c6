import { jsonOffer } from '@/app/(desk)/ask/offer-parts/json-offer';
import { desk } from '@/app/answer';
import { offersPage } from '@/flows/offer/offers';
import { businessToday } from '@/flows/payment/payment-list';
import { OfferPageInput } from '@/input/offer-input';
import { PLACEMENT_WORDS } from '@/ui/offer/placement-words';

export const GET = desk(OfferPageInput, async (actor, { input }) => {
  const after = input.key && input.id ? { key: input.key, id: input.id } : null;
  const { business, today } = await businessToday(actor);
  const page = await offersPage(actor, input.placement, input.words ?? '', after);
  const { path } = PLACEMENT_WORDS[input.placement];
  return { rows: page.rows.map((row) => jsonOffer(row, business, path, today)), next: page.next };
});
