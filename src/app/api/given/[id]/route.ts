import { desk } from '@/app/answer';
import { giveAgain } from '@/flows/digital/grants';
import { GiveAgainInput } from '@/input/counter-input';

/** Gives something of a sale once more. */
export const POST = desk(GiveAgainInput, (actor, { input, params }) =>
  giveAgain(actor, params.id ?? '', input.grantId),
);
