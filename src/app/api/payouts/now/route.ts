import { desk, Nothing } from '@/app/answer';
import { payOutNow } from '@/flows/payout/pay-out-due';

export const POST = desk(Nothing, (actor) => payOutNow(actor));
