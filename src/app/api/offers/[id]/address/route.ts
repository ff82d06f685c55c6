import { desk } from '@/app/answer';
import { AddressNameInput } from '@/app/input/offer-input';
import { lookAtAddress, setAddress } from '@/flows/offer/offers';

export const GET = desk(AddressNameInput, (actor, { input, params }) =>
  lookAtAddress(actor, params.id ?? '', input.address),
);

export const PUT = desk(AddressNameInput, (actor, { input, params }) =>
  setAddress(actor, params.id ?? '', input.address),
);
