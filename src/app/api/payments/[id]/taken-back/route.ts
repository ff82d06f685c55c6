import { desk } from '@/app/answer';
import { takeBackReceived } from '@/flows/payment/take-back-received';
import { TakenBackInput } from '@/input/offer-input';

export const POST = desk(TakenBackInput, (actor, { input, params }) =>
  takeBackReceived(actor, params.id ?? '', { reason: input.reason, tell: input.tell }),
);
