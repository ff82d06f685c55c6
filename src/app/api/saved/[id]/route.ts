import { desk, Nothing } from '@/app/answer';
import { dropList } from '@/flows/search-invoices';

export const DELETE = desk(Nothing, (actor, { params }) => dropList(actor, params.id ?? ''));
