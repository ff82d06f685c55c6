import { desk, Nothing } from '@/app/answer';
import { paidByHand } from '@/flows/payout/pay-again';

export const POST = desk(Nothing, (actor, { params }) => paidByHand(actor, params.id ?? ''));
