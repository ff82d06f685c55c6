import { desk } from '@/app/answer';
import { SendPlanInput } from '@/app/input/plan-input';
import { sendPlan } from '@/flows/plan/plans';

export const POST = desk(SendPlanInput, (actor, { input, params }) => sendPlan(actor, params.id ?? '', input.way));
