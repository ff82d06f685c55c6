import { open } from '@/app/answer';
import { PayInput } from '@/app/input/pay-input';
import { payByLink } from '@/flows/payment/take-payment';

export const POST = open(PayInput, ({ input, params, address }) =>
  payByLink(
    params.token ?? '',
    {
      ...input,
      amountMinor: BigInt(input.amountMinor),
      tipMinor: BigInt(input.tipMinor ?? 0),
      acceptsTerms: input.acceptsTerms ?? false,
    },
    address,
  ),
);
