import { desk, Nothing } from '@/app/answer';
import { sendIdentity } from '@/flows/identity/identity';

export const POST = desk(Nothing, (actor) => sendIdentity(actor));
