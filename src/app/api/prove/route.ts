import { desk, Nothing } from '@/app/answer';
import { givenStep } from '@/app/given-step';
import { sessionOf } from '@/app/session';
import { prove, proveWays } from '@/flows/house/steps/prove';
import { ProveInput } from '@/input/step-input';

export const GET = desk(Nothing, (actor) => proveWays(actor));

export const POST = desk(ProveInput, (actor, { input, request, address }) =>
  prove(actor, sessionOf(request), givenStep(input), address),
);
