import { desk } from '@/app/answer';
import { TermsInput } from '@/app/input/profile-input';
import { keepTerms } from '@/flows/records/profile';

export const POST = desk(TermsInput, async (actor, { input }) => ({
  id: await keepTerms(actor, input.id ?? null, input.name, input.text),
}));
