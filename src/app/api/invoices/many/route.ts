import { desk } from '@/app/answer';
import { ManyInput } from '@/app/input/search-input';
import { cancelMany, remindMany } from '@/flows/invoice/many-invoices';

export const POST = desk(ManyInput, (actor, { input }) =>
  input.action === 'remind'
    ? remindMany(actor, input.ids, input.requestKey)
    : cancelMany(actor, input.ids, input.reason || 'Cancelled together with others', input.tell),
);
