import type { PlanWords } from '@/flows/plan/plans';
import type { KeepPlanInput } from '@/input/plan-input';

/** What was sent of a plan, whole: what may be left out is as on an empty one. */
export const planWords = ({ terms, memo, reference }: KeepPlanInput): PlanWords => ({
  terms: { ...terms, noticeDays: terms.noticeDays ?? null },
  memo,
  reference,
});
