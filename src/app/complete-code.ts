import type { CodeInput } from '@/input/offer-records-input';

/** A discount code as kept: amounts as they are counted. */
export const completeCode = (input: CodeInput) => ({
  ...input,
  percent: input.percent ?? null,
  amountMinor: input.amountMinor ? BigInt(input.amountMinor) : null,
  leastMinor: BigInt(input.leastMinor),
  mostUses: input.mostUses ?? null,
  mostEach: input.mostEach ?? null,
});
