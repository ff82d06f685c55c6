import { desk, Nothing } from '@/app/answer';
import { payAgain } from '@/flows/payout/pay-again';

export const POST = desk(Nothing, (actor, { params }) => payAgain(actor, params.id ?? ''));
