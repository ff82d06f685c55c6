/** A code as its table shows it; amounts in minor units. */
export type ShownCode = {
  readonly id: string;
  readonly code: string;
  readonly note: string;
  readonly percent: string | null;
  readonly amountMinor: number | null;
  readonly currency: string;
  readonly from: string;
  readonly to: string;
  readonly leastMinor: number;
  readonly mostUses: number | null;
  readonly mostEach: number | null;
  readonly itemIds: readonly string[];
  readonly uses: number;
  readonly sums: readonly { readonly currency: string; readonly paidMinor: number; readonly discountMinor: number }[];
};
