import { desk, Nothing } from '@/app/answer';
import { forgetRule } from '@/flows/bank/bank-page';

export const DELETE = desk(Nothing, (actor, { params }) => forgetRule(actor, params.id ?? ''));
