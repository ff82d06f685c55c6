import { desk } from '@/app/answer';
import { beginOffer } from '@/flows/offer/offers';
import { BeginOfferInput } from '@/input/offer-input';

export const POST = desk(BeginOfferInput, async (actor, { input }) => ({
  id: await beginOffer(actor, input.placement, input.from ?? null),
}));
