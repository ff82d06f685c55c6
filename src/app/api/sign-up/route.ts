import { open } from '@/app/answer';
import { signedInAnswer } from '@/app/session';
import { signUp } from '@/flows/house/sign-up';
import { SignUpInput } from '@/input/people-input';

export const POST = open(SignUpInput, async ({ input, address, request }) => {
  const begun = await signUp(input, { address, agent: request.headers.get('user-agent') ?? '' });
  return signedInAnswer(begun, { invoiceId: begun.invoiceId });
});
