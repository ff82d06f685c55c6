import { desk, Nothing } from '@/app/answer';
import { mayTakeAlong } from '@/flows/keeping/take-along';

export const POST = desk(Nothing, (actor) => mayTakeAlong(actor));
