import { desk, Nothing } from '@/app/answer';
import { dropPlan } from '@/flows/plan-sending';

export const DELETE = desk(Nothing, (actor, { params }) => dropPlan(actor, params.id ?? ''));
