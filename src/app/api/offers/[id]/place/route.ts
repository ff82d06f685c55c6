import { desk, Nothing } from '@/app/answer';
import { placeOffer } from '@/flows/offer/offers';

export const POST = desk(Nothing, (actor, { params }) => placeOffer(actor, params.id ?? ''));
