import { desk, Nothing } from '@/app/answer';
import { endKey } from '@/flows/program/keys';

export const DELETE = desk(Nothing, (actor, { params }) => endKey(actor, params.id ?? ''));
