import { desk, Nothing } from '@/app/answer';
import { givenStep } from '@/app/given-step';
import { sessionOf } from '@/app/session';
import { prove, proveAsked } from '@/flows/house/steps/prove';
import { ProveInput } from '@/input/step-input';

export const GET = desk(Nothing, (actor, { request }) => proveAsked(actor, sessionOf(request)));

export const POST = desk(ProveInput, (actor, { input, request, address }) =>
  prove(actor, sessionOf(request), givenStep(input), address),
);
