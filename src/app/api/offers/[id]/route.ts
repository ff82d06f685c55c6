import { desk, Nothing } from '@/app/answer';
import { PAPER_BODY } from '@/app/body';
import { deleteOffer, keepOffer } from '@/flows/offer/offers';
import { KeepOfferInput } from '@/input/offer-input';

export const PUT = desk(
  KeepOfferInput,
  (actor, { input: { revision, ...fields }, params }) => keepOffer(actor, params.id ?? '', revision, fields),
  { most: PAPER_BODY },
);

export const DELETE = desk(Nothing, (actor, { params }) => deleteOffer(actor, params.id ?? ''));
