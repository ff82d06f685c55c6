import { desk } from '@/app/answer';
import { AlikeInput } from '@/app/input/customer-input';
import { alikeCustomers } from '@/flows/records/customers';

export const GET = desk(AlikeInput, (actor, { input }) => alikeCustomers(actor, input.name, input.email));
