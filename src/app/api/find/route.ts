import { desk } from '@/app/answer';
import { findInvoices } from '@/flows/house/find';
import { WordsInput } from '@/input/people-input';

export const GET = desk(WordsInput, (actor, { input }) => findInvoices(actor, input.words));
