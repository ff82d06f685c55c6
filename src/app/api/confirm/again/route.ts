import { desk, Nothing } from '@/app/answer';
import { sendConfirmAgain } from '@/flows/house/confirm';

export const POST = desk(Nothing, (actor) => sendConfirmAgain(actor));
