import { open } from '@/app/answer';
import { payByVoucher } from '@/flows/payment/pay-by-voucher';
import { UseVoucherInput } from '@/input/voucher-input';

export const POST = open(UseVoucherInput, ({ input, params, address }) =>
  payByVoucher(
    params.token ?? '',
    { ...input, paysMinor: BigInt(input.paysMinor), acceptsTerms: input.acceptsTerms ?? false },
    address,
  ),
);
