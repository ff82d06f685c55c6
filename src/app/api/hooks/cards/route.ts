import { signedHook } from '@/app/answer';
import { hearCardEvent } from '@/flows/processor/hear-card-event';

/** The processor tells that a sale has changed. Anything that it did not sign is refused. */
export const POST = signedHook(hearCardEvent);
