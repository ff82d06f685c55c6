import { desk, fileAnswer } from '@/app/answer';
import { PaperToSignInput } from '@/app/input/plan-input';
import { paperToSign } from '@/flows/plan/authorisation-file';

/** The paper that a customer signs, before a plan begins or a card is kept. */
export const GET = desk(
  PaperToSignInput,
  async (actor, { input }) => fileAnswer(await paperToSign(actor, input)),
  'address',
);
