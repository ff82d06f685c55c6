import { wireOffer } from '@/app/(desk)/ask/offer-parts/wire-offer';
import { desk } from '@/app/answer';
import { OfferPageInput } from '@/app/input/offer-input';
import { offersPage } from '@/flows/offers';
import { businessToday } from '@/flows/payment-list';
import { PLACEMENT_WORDS } from '@/ui/offer/placement-words';

export const GET = desk(OfferPageInput, async (actor, { input }) => {
  const after = input.key && input.id ? { key: input.key, id: input.id } : null;
  const { business, today } = await businessToday(actor);
  const page = await offersPage(actor, input.placement, input.words ?? '', after);
  const { path } = PLACEMENT_WORDS[input.placement];
  return { rows: page.rows.map((row) => wireOffer(row, business, path, today)), next: page.next };
});
