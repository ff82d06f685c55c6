import { desk, fileAnswer } from '@/app/answer';
import { paperToSign } from '@/flows/plan/authorisation-file';
import { PaperToSignInput } from '@/input/plan-input';

/** The paper that a customer signs, before a plan begins or a card is kept. */
export const GET = desk(PaperToSignInput, async (actor, { input }) => fileAnswer(await paperToSign(actor, input)), {
  from: 'address',
});
