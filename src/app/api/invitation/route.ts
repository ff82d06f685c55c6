import { open } from '@/app/answer';
import { sessionOf, signedInAnswer } from '@/app/session';
import { acceptInvitation } from '@/flows/house/people';
import { AcceptInput } from '@/input/people-input';

export const POST = open(AcceptInput, async ({ input, address, request }) => {
  const session = sessionOf(request);
  const from = { address, agent: request.headers.get('user-agent') ?? '' };
  return signedInAnswer(await acceptInvitation(input.token, { ...input, session }, from));
});
