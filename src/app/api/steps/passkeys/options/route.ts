import { desk, Nothing } from '@/app/answer';
import { newPasskey } from '@/flows/house/steps/set-up';

export const POST = desk(Nothing, (actor) => newPasskey(actor));
