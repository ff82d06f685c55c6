import { desk } from '@/app/answer';
import { payByVoucherAtDesk } from '@/flows/payment/pay-by-voucher';
import { UseVoucherInput } from '@/input/voucher-input';

export const POST = desk(UseVoucherInput, (actor, { input, params }) =>
  payByVoucherAtDesk(actor, params.id ?? '', { ...input, paysMinor: BigInt(input.paysMinor) }),
);
