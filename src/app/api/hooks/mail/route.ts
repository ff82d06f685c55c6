import { signedHook } from '@/app/answer';
import { hearMailEvent } from '@/flows/message/hear-mail-event';

/** The mail server tells what became of a message. Anything that it did not sign is refused. */
export const POST = signedHook(hearMailEvent);
