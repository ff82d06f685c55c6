import { desk } from '@/app/answer';
import { saveList } from '@/flows/invoice/search-invoices';
import { askOf, SaveListInput } from '@/input/search-input';

export const POST = desk(SaveListInput, (actor, { input }) => saveList(actor, input.name, askOf(input.asked)));
