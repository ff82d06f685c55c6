import { desk, Nothing } from '@/app/answer';
import { dropList } from '@/flows/invoice/search-invoices';

export const DELETE = desk(Nothing, (actor, { params }) => dropList(actor, params.id ?? ''));
