import { desk } from '@/app/answer';
import { startAtDesk } from '@/flows/plan/plans';
import { cardGiven, StartPlanInput } from '@/input/plan-input';

export const POST = desk(StartPlanInput, (actor, { input, params }) =>
  startAtDesk(
    actor,
    params.id ?? '',
    cardGiven(input.card),
    input.given ? { ...input.given, fileId: input.given.fileId ?? null } : null,
    input.secondId ?? null,
  ),
);
