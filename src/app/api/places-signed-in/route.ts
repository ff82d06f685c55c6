import { desk } from '@/app/answer';
import { sessionOf } from '@/app/session';
import { endPlaces } from '@/flows/house/sign-in';
import { EndInput } from '@/input/people-input';

export const DELETE = desk(EndInput, (actor, { input, request, address }) =>
  endPlaces(actor, input.key, sessionOf(request), address),
);
