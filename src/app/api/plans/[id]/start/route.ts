import { desk } from '@/app/answer';
import { cardGiven, StartPlanInput } from '@/app/input/plan-input';
import { startAtDesk } from '@/flows/plan/plans';

export const POST = desk(StartPlanInput, (actor, { input, params }) =>
  startAtDesk(
    actor,
    params.id ?? '',
    cardGiven(input.card),
    input.given ? { ...input.given, fileId: input.given.fileId ?? null } : null,
  ),
);
