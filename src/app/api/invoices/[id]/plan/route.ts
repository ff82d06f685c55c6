import { desk, Nothing } from '@/app/answer';
import { dropSendingTime } from '@/flows/invoice/timed-sending';

export const DELETE = desk(Nothing, (actor, { params }) => dropSendingTime(actor, params.id ?? ''));
