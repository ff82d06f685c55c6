import { open } from '@/app/answer';
import { DEVICE_COOKIE, signedInAnswer } from '@/app/session';
import { signInByPasskey } from '@/flows/house/steps/half';
import { PasskeyInput } from '@/input/step-input';

export const POST = open(PasskeyInput, async ({ input, address, request }) =>
  signedInAnswer(
    await signInByPasskey(input, address, {
      device: request.cookies.get(DEVICE_COOKIE)?.value,
      agent: request.headers.get('user-agent') ?? '',
    }),
  ),
);
