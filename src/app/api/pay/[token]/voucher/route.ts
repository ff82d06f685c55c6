import { open } from '@/app/answer';
import { voucherForInvoice } from '@/flows/payment/pay-by-voucher';
import { VoucherCodeInput } from '@/input/voucher-input';

export const POST = open(VoucherCodeInput, ({ input, params, address }) =>
  voucherForInvoice(params.token ?? '', input.code, address),
);
