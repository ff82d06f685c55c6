import { desk } from '@/app/answer';
import { setOfferState } from '@/flows/offer/offers';
import { OfferStateInput } from '@/input/offer-input';

export const PUT = desk(OfferStateInput, (actor, { input, params }) =>
  setOfferState(actor, params.id ?? '', input.state),
);
