import { desk } from '@/app/answer';
import { keepKeepingRule } from '@/flows/keeping/keeping-rule';
import { KeepingInput } from '@/input/keeping-input';

export const PUT = desk(KeepingInput, (actor, { input }) => keepKeepingRule(actor, { ...input }));
