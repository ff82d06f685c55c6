import { desk, Nothing } from '@/app/answer';
import { rehearsedWork } from '@/flows/checkout/rehearse';

export const GET = desk(Nothing, (actor, { params }) => rehearsedWork(actor, params.id ?? ''));
