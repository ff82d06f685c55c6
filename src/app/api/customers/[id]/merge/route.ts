import { desk } from '@/app/answer';
import { MergeInput } from '@/app/input/customer-input';
import { mergeCustomers } from '@/flows/records/customers';

export const POST = desk(MergeInput, (actor, { input, params }) =>
  mergeCustomers(actor, params.id ?? '', input.otherId),
);
