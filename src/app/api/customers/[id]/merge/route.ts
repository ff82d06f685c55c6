import { desk } from '@/app/answer';
import { MergeInput } from '@/app/input/customer-input';
import { mergeCustomers } from '@/flows/customers';

export const POST = desk(MergeInput, (actor, { input, params }) =>
  mergeCustomers(actor, params.id ?? '', input.otherId),
);
