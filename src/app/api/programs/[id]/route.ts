import { desk, Nothing } from '@/app/answer';
import { changeHook, removeHook } from '@/flows/hook/hooks';
import { ChangedHookInput } from '@/input/hook-input';

export const PUT = desk(ChangedHookInput, (actor, { input, params }) => changeHook(actor, params.id ?? '', input));

export const DELETE = desk(Nothing, (actor, { params }) => removeHook(actor, params.id ?? ''));
