import { desk } from '@/app/answer';
import { mergeCustomers } from '@/flows/records/customers';
import { MergeInput } from '@/input/customer-input';

export const POST = desk(MergeInput, (actor, { input, params }) =>
  mergeCustomers(actor, params.id ?? '', input.otherId),
);
