import { desk } from '@/app/answer';
import { cancelMany, remindMany } from '@/flows/invoice/many-invoices';
import { ManyInput } from '@/input/search-input';

export const POST = desk(ManyInput, (actor, { input }) =>
  input.action === 'remind'
    ? remindMany(actor, input.ids, input.requestKey)
    : cancelMany(actor, input.ids, input.reason || 'Cancelled together with others', input.tell),
);
