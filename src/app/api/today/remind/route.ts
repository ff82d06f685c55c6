import { desk } from '@/app/answer';
import { remindOfAll } from '@/flows/day/remind-of-all';
import { RemindOfAllInput } from '@/input/today-input';

export const POST = desk(RemindOfAllInput, (actor, { input }) =>
  remindOfAll(actor, { invoiceIds: input.invoiceIds, planIds: input.planIds }, input.requestKey),
);
