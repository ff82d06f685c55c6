import { desk } from '@/app/answer';
import { endRecurring, pauseRecurring, replanRecurring, resumeRecurring, skipNext } from '@/flows/invoice/recurring';
import { RecurringActionInput, RecurringInput } from '@/input/recurring-input';

const ACTIONS = { pause: pauseRecurring, resume: resumeRecurring, skip: skipNext, end: endRecurring } as const;

export const POST = desk(RecurringActionInput, (actor, { input, params }) =>
  ACTIONS[input.action](actor, params.id ?? ''),
);

export const PUT = desk(RecurringInput, async (actor, { input, params }) => {
  await replanRecurring(actor, params.id ?? '', input);
  return { id: params.id };
});
