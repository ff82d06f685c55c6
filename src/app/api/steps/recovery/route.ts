import { desk, Nothing } from '@/app/answer';
import { newRecoveryCodes } from '@/flows/house/steps/set-up';

export const POST = desk(Nothing, (actor, { address }) => newRecoveryCodes(actor, address));
