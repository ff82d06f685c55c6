import { desk } from '@/app/answer';
import { CustomerInput } from '@/app/input/customer-input';
import { WordsInput } from '@/app/input/people-input';
import { addCustomer, findCustomers } from '@/flows/records/customers';

export const GET = desk(WordsInput, (actor, { input }) => findCustomers(actor, input.words));

export const POST = desk(CustomerInput, (actor, { input }) =>
  addCustomer(actor, { ...input, delivery: input.delivery ?? null, due: input.due ?? null }),
);
