import { desk } from '@/app/answer';
import { jsonMinor } from '@/core/money/money';
import { payFromCredit } from '@/flows/payment/pay-from-credit';
import { PressInput } from '@/input/follow-input';

export const POST = desk(PressInput, async (actor, { input, params }) => ({
  used: jsonMinor(await payFromCredit(actor, params.id ?? '', input.requestKey)),
}));
