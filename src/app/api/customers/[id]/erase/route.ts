import { desk, Nothing } from '@/app/answer';
import { eraseCustomer } from '@/flows/keeping/customer-data';

export const POST = desk(Nothing, (actor, { params }) => eraseCustomer(actor, params.id ?? ''));
