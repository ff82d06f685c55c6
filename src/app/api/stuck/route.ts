import { desk } from '@/app/answer';
import { tryStuckAgain } from '@/flows/day/stuck-work';
import { StuckInput } from '@/input/people-input';

export const POST = desk(StuckInput, (actor, { input }) => tryStuckAgain(actor, input.key));
