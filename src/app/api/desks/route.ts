import { open } from '@/app/answer';
import { sessionAnswer, sessionOf } from '@/app/session';
import { changeDesk } from '@/flows/house/desks';
import { DeskInput } from '@/input/people-input';

export const POST = open(DeskInput, async ({ input, address, request }) => {
  const session = sessionOf(request);
  const from = { address, agent: request.headers.get('user-agent') ?? '' };
  return sessionAnswer(await changeDesk(session, input.businessId, from));
});
