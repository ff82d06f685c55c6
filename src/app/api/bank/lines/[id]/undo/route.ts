import { desk, Nothing } from '@/app/answer';
import { undoMatch } from '@/flows/bank/take-match';

export const POST = desk(Nothing, (actor, { params }) => undoMatch(actor, params.id ?? ''));
