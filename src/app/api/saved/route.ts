import { desk } from '@/app/answer';
import { askOf, SaveListInput } from '@/app/input/search-input';
import { saveList } from '@/flows/invoice/search-invoices';

export const POST = desk(SaveListInput, (actor, { input }) => saveList(actor, input.name, askOf(input.asked)));
