import { desk, Nothing } from '@/app/answer';
import { planWords } from '@/app/complete-plan';
import { changeTerms, lookAtChange, withdrawProposal } from '@/flows/plan/change-terms';
import { ChangeTermsInput, KeepPlanInput } from '@/input/plan-input';

/** What a change would come to. */
export const POST = desk(KeepPlanInput, (actor, { input, params }) =>
  lookAtChange(actor, params.id ?? '', planWords(input).terms),
);

/** A running plan is so from now on, or its customer is asked to agree. */
export const PUT = desk(ChangeTermsInput, (actor, { input, params }) =>
  changeTerms(
    actor,
    params.id ?? '',
    planWords(input).terms,
    input.revision ?? 0,
    input.given ? { ...input.given, fileId: input.given.fileId ?? null } : null,
  ),
);

export const DELETE = desk(Nothing, (actor, { params }) => withdrawProposal(actor, params.id ?? ''));
