import { desk, Nothing } from '@/app/answer';
import { deleteOffer, keepOffer } from '@/flows/offer/offers';
import { KeepOfferInput } from '@/input/offer-input';

export const PUT = desk(KeepOfferInput, (actor, { input: { revision, ...fields }, params }) =>
  keepOffer(actor, params.id ?? '', revision, fields),
);

export const DELETE = desk(Nothing, (actor, { params }) => deleteOffer(actor, params.id ?? ''));
