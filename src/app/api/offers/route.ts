import { desk } from '@/app/answer';
import { BeginOfferInput } from '@/app/input/offer-input';
import { beginOffer } from '@/flows/offer/offers';

export const POST = desk(BeginOfferInput, async (actor, { input }) => ({
  id: await beginOffer(actor, input.placement, input.from ?? null),
}));
