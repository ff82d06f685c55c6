import { desk, Nothing } from '@/app/answer';
import { sendAnswer } from '@/flows/dispute/answer-dispute';

export const POST = desk(Nothing, (actor, { params }) => sendAnswer(actor, params.id ?? ''));
