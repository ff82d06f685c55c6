import { desk, Nothing } from '@/app/answer';
import { sessionOf } from '@/app/session';
import { addApp, removeApp } from '@/flows/house/steps/set-up';
import { AppInput } from '@/input/step-input';

export const POST = desk(AppInput, (actor, { input, request, address }) =>
  addApp(actor, input.seal, input.code, { token: sessionOf(request), address }),
);

export const DELETE = desk(Nothing, (actor, { address }) => removeApp(actor, address));
