import { desk } from '@/app/answer';
import { addHook } from '@/flows/hook/hooks';
import { HookInput } from '@/input/hook-input';

export const POST = desk(HookInput, (actor, { input }) => addHook(actor, input));
