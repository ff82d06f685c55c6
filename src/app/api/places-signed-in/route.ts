import { desk } from '@/app/answer';
import { SESSION_COOKIE } from '@/app/session';
import { endPlaces } from '@/flows/house/sign-in';
import { EndInput } from '@/input/people-input';

export const DELETE = desk(EndInput, (actor, { input, request, address }) =>
  endPlaces(actor, input.key, request.cookies.get(SESSION_COOKIE)?.value ?? '', address),
);
