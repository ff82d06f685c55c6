import { desk } from '@/app/answer';
import { sessionOf } from '@/app/session';
import { dropPasskey, keepPasskey } from '@/flows/house/steps/set-up';
import { NewPasskeyInput, PasskeyIdInput } from '@/input/step-input';

export const POST = desk(NewPasskeyInput, (actor, { input, request, address }) =>
  keepPasskey(actor, input, input.name, { token: sessionOf(request), address }),
);

export const DELETE = desk(PasskeyIdInput, (actor, { input, address }) => dropPasskey(actor, input.id, address));
