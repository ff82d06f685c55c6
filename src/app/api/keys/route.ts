import { desk } from '@/app/answer';
import { makeKey } from '@/flows/program/keys';
import { KeyInput } from '@/input/program-input';

export const POST = desk(KeyInput, (actor, { input }) => makeKey(actor, { ...input }));
