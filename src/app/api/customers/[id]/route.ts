import { desk } from '@/app/answer';
import { CustomerInput } from '@/app/input/customer-input';
import { changeCustomer } from '@/flows/records/customers';

export const PUT = desk(CustomerInput, (actor, { input, params }) =>
  changeCustomer(actor, params.id ?? '', { ...input, delivery: input.delivery ?? null, due: input.due ?? null }),
);
