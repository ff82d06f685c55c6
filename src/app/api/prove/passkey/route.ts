import { desk, Nothing } from '@/app/answer';
import { sessionOf } from '@/app/session';
import { provePasskey } from '@/flows/house/steps/prove';

export const POST = desk(Nothing, (actor, { request }) => provePasskey(actor, sessionOf(request)));
