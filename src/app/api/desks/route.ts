import { open } from '@/app/answer';
import { SESSION_COOKIE, sessionAnswer } from '@/app/session';
import { changeDesk } from '@/flows/house/desks';
import { DeskInput } from '@/input/people-input';

export const POST = open(DeskInput, async ({ input, address, request }) => {
  const session = request.cookies.get(SESSION_COOKIE)?.value ?? '';
  const from = { address, agent: request.headers.get('user-agent') ?? '' };
  return sessionAnswer(await changeDesk(session, input.businessId, from));
});
