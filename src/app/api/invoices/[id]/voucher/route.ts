import { desk } from '@/app/answer';
import { voucherAtDesk } from '@/flows/payment/pay-by-voucher';
import { VoucherCodeInput } from '@/input/voucher-input';

export const POST = desk(VoucherCodeInput, (actor, { input, params }) =>
  voucherAtDesk(actor, params.id ?? '', input.code),
);
