import { desk } from '@/app/answer';
import { OfferStateInput } from '@/app/input/offer-input';
import { setOfferState } from '@/flows/offer/offers';

export const PUT = desk(OfferStateInput, (actor, { input, params }) =>
  setOfferState(actor, params.id ?? '', input.state),
);
