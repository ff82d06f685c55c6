import { desk } from '@/app/answer';
import { sessionOf } from '@/app/session';
import { changePassword } from '@/flows/house/sign-in';
import { PasswordInput } from '@/input/people-input';

export const PUT = desk(PasswordInput, (actor, { input, request, address }) =>
  changePassword(actor, input, sessionOf(request), address),
);
