import { desk, Nothing } from '@/app/answer';
import { acceptDispute } from '@/flows/dispute/answer-dispute';

export const POST = desk(Nothing, (actor, { params }) => acceptDispute(actor, params.id ?? ''));
