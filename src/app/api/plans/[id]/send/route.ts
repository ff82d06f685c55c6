import { desk } from '@/app/answer';
import { sendPlan } from '@/flows/plan/plans';
import { SendPlanInput } from '@/input/plan-input';

export const POST = desk(SendPlanInput, (actor, { input, params }) => sendPlan(actor, params.id ?? '', input.way));
