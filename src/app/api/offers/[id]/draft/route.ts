import { desk, Nothing } from '@/app/answer';
import { discardOfferDraft, keepOfferDraft } from '@/flows/offer/offers';
import { KeepOfferInput } from '@/input/offer-input';

/** What is edited of a placed offer, beside it. */
export const PUT = desk(KeepOfferInput, (actor, { input: { revision, ...fields }, params }) =>
  keepOfferDraft(actor, params.id ?? '', revision, fields),
);

export const DELETE = desk(Nothing, (actor, { params }) => discardOfferDraft(actor, params.id ?? ''));
