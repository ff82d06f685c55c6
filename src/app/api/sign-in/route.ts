import { open } from '@/app/answer';
import { DEVICE_COOKIE, signedInAnswer } from '@/app/session';
import { signIn } from '@/flows/house/sign-in';
import { SignInInput } from '@/input/people-input';

export const POST = open(SignInInput, async ({ input, address, request }) => {
  const answer = await signIn(input.email, input.password, address, {
    work: input.work,
    device: request.cookies.get(DEVICE_COOKIE)?.value,
    agent: request.headers.get('user-agent') ?? '',
  });
  return 'half' in answer ? answer : signedInAnswer(answer);
});
