import { desk, Nothing } from '@/app/answer';
import { rehearsedWork } from '@/flows/rehearse';

export const GET = desk(Nothing, (actor, { params }) => rehearsedWork(actor, params.id ?? ''));
