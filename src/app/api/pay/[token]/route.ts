import { open } from '@/app/answer';
import { payByLink } from '@/flows/payment/take-payment';
import { PayInput } from '@/input/pay-input';

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
