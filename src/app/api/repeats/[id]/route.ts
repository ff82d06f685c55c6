import { desk } from '@/app/answer';
import { RepeatDeedInput, RepeatInput } from '@/app/input/repeat-input';
import { endRepeat, pauseRepeat, replanRepeat, resumeRepeat, skipNext } from '@/flows/repeats';

const DEEDS = { pause: pauseRepeat, resume: resumeRepeat, skip: skipNext, end: endRepeat } as const;

export const POST = desk(RepeatDeedInput, (actor, { input, params }) => DEEDS[input.deed](actor, params.id ?? ''));

export const PUT = desk(RepeatInput, async (actor, { input, params }) => {
  await replanRepeat(actor, params.id ?? '', input);
  return { id: params.id };
});
