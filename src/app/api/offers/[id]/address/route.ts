import { desk } from '@/app/answer';
import { lookAtAddress, setAddress } from '@/flows/offer/offers';
import { AddressNameInput } from '@/input/offer-input';

export const GET = desk(AddressNameInput, (actor, { input, params }) =>
  lookAtAddress(actor, params.id ?? '', input.address),
);

export const PUT = desk(AddressNameInput, (actor, { input, params }) =>
  setAddress(actor, params.id ?? '', input.address),
);
