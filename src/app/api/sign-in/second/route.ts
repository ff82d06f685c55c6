import { open } from '@/app/answer';
import { givenStep } from '@/app/given-step';
import { DEVICE_COOKIE, signedInAnswer } from '@/app/session';
import { takeSecondStep } from '@/flows/house/steps/half';
import { SecondStepInput } from '@/input/step-input';

export const POST = open(SecondStepInput, async ({ input, address, request }) =>
  signedInAnswer(
    await takeSecondStep(input.half, givenStep(input), address, {
      device: request.cookies.get(DEVICE_COOKIE)?.value,
      agent: request.headers.get('user-agent') ?? '',
    }),
  ),
);
