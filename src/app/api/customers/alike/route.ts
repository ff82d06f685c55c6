import { desk } from '@/app/answer';
import { alikeCustomers } from '@/flows/records/customers';
import { AlikeInput } from '@/input/customer-input';

export const GET = desk(AlikeInput, (actor, { input }) => alikeCustomers(actor, input.name, input.email));
