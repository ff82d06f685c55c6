import { desk } from '@/app/answer';
import { WordsInput } from '@/app/input/people-input';
import { findInvoices } from '@/flows/house/find';

export const GET = desk(WordsInput, (actor, { input }) => findInvoices(actor, input.words));
