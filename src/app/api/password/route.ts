import { desk } from '@/app/answer';
import { SESSION_COOKIE } from '@/app/session';
import { changePassword } from '@/flows/house/sign-in';
import { PasswordInput } from '@/input/people-input';

export const PUT = desk(PasswordInput, (actor, { input, request, address }) =>
  changePassword(actor, input, request.cookies.get(SESSION_COOKIE)?.value ?? '', address),
);
