import { desk, Nothing } from '@/app/answer';
import { keepSteps } from '@/flows/house/steps/lost';

export const POST = desk(Nothing, (actor, { address }) => keepSteps(actor, address));
