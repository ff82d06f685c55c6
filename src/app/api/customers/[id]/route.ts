import { desk } from '@/app/answer';
import { changeCustomer } from '@/flows/records/customers';
import { CustomerInput } from '@/input/customer-input';

export const PUT = desk(CustomerInput, (actor, { input, params }) =>
  changeCustomer(actor, params.id ?? '', { ...input, delivery: input.delivery ?? null, due: input.due ?? null }),
);
