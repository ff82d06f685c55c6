import { desk } from '@/app/answer';
import { keepTerms } from '@/flows/records/profile';
import { TermsInput } from '@/input/profile-input';

export const POST = desk(TermsInput, async (actor, { input }) => ({
  id: await keepTerms(actor, input.id ?? null, input.name, input.text),
}));
