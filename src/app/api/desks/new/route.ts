import { open } from '@/app/answer';
import { sessionAnswer, sessionOf } from '@/app/session';
import { foundAnother } from '@/flows/house/desks';
import { AnotherInput } from '@/input/people-input';

export const POST = open(AnotherInput, async ({ input, address, request }) => {
  const session = sessionOf(request);
  const from = { address, agent: request.headers.get('user-agent') ?? '' };
  const { invoiceId, ...opened } = await foundAnother(session, input, from);
  return sessionAnswer(opened, { invoiceId });
});
