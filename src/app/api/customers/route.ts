import { desk } from '@/app/answer';
import { addCustomer, findCustomers } from '@/flows/records/customers';
import { CustomerInput } from '@/input/customer-input';
import { WordsInput } from '@/input/people-input';

export const GET = desk(WordsInput, (actor, { input }) => findCustomers(actor, input.words));

export const POST = desk(CustomerInput, (actor, { input }) =>
  addCustomer(actor, { ...input, delivery: input.delivery ?? null, due: input.due ?? null }),
);
