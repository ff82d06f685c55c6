/** A discount in percent (a decimal string, 0 to 100) or as an amount in minor units: exactly one of the two. */
export type Discount = { readonly percent: string } | { readonly amount: bigint };

/** One line: `quantity` up to 4 fraction digits, `unitPrice` up to 6, both decimal strings in main units. */
export type TallyLine = {
  readonly quantity: string;
  readonly unitPrice: string;
  readonly discount?: Discount;
  readonly taxes?: readonly string[];
};

/** A tax that lines name by `id`; `rate` in percent as a decimal string. */
export type TallyTax = {
  readonly id: string;
  readonly name: string;
  readonly rate: string;
  readonly onDelivery: boolean;
};

/** What a total is computed from (`calculation.md` 1 to 6); all amounts in minor units of `currency`. */
export type TallyDocument = {
  readonly currency: string;
  readonly pricesIncludeTax: boolean;
  /** The reason where no tax applies; its presence makes the document exempt. */
  readonly exempt?: string;
  readonly lines: readonly TallyLine[];
  /** `lines` limits the discount to these indexes. */
  readonly discount?: Discount & { readonly lines?: readonly number[] };
  readonly delivery?: { readonly amount: bigint; readonly taxes?: readonly string[] };
  readonly fees?: readonly { readonly amount: bigint; readonly taxes?: readonly string[] }[];
  readonly taxes: readonly TallyTax[];
  readonly flatTaxes?: readonly { readonly name: string; readonly amount: bigint }[];
};

/** A line worked out; `apportioned` is its part of the document discount and serves the tax bases only. */
export type LineTally = {
  readonly gross: bigint;
  readonly discount: bigint;
  readonly net: bigint;
  readonly apportioned: bigint;
};

/** A total with all its steps, in minor units. */
export type Tally = {
  readonly currency: string;
  readonly lines: readonly LineTally[];
  readonly subtotal: bigint;
  readonly lineDiscounts: bigint;
  readonly documentDiscount: bigint;
  readonly charges: bigint;
  readonly taxes: readonly { readonly id: string; readonly base: bigint; readonly amount: bigint }[];
  readonly flatTaxes: readonly { readonly name: string; readonly amount: bigint }[];
  readonly taxTotal: bigint;
  readonly total: bigint;
};
