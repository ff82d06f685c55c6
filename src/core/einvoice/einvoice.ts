/**
 * A tax category of EN 16931 (BT-151, UNCL 5305): standard, zero rated, exempt, reverse charge, export outside the EU, outside
 * the scope; delivery within the EU (K) only as read from others.
 */
export type Category = 'S' | 'Z' | 'E' | 'AE' | 'G' | 'O' | 'K';

/** A category with its rate in percent, a decimal string; `''` where it has none (outside the scope). */
export type Taxed = { readonly category: Category; readonly rate: string };

/** A tax breakdown (BG-23): taxable amount and tax in minor units, and why there is none, in words and by code (VATEX). */
export type TaxGroup = Taxed & {
  readonly base: bigint;
  readonly amount: bigint;
  readonly reason: string;
  readonly reasonCode: string;
};

/** An allowance (BG-20) or a charge (BG-21) on the document, minor units, without tax. */
export type Change = Taxed & { readonly amount: bigint; readonly reason: string };

/** A line (BG-25); sums in minor units without tax, decimals as strings. */
export type EInvoiceLine = Taxed & {
  readonly name: string;
  readonly quantity: string;
  /** UN/ECE recommendation 20. */
  readonly unit: string;
  /** Price of one without tax. */
  readonly price: string;
  /** What the line is less (BG-27) or, negative, more (BG-28) than quantity × price. */
  readonly allowance: bigint;
  readonly net: bigint;
  /** The seller's own code of the item (BT-155). */
  readonly code: string;
  readonly note: string;
  /** The day of the line (BT-134, 135), ISO; empty for none. */
  readonly on: string;
};

/** Seller (BG-4) or buyer (BG-7), their parts empty where there are none. */
export type Party = {
  /** The registered name (BT-27, BT-44). */
  readonly name: string;
  /** By which it is known otherwise (BT-28); empty for none. */
  readonly tradingName: string;
  readonly email: string;
  readonly lines: readonly string[];
  readonly city: string;
  readonly postalCode: string;
  readonly region: string;
  /** ISO 3166-1. */
  readonly country: string;
  /** With its country's prefix (BT-31, BT-48). */
  readonly vatId: string;
  /** A tax number that is none of VAT: BT-32 of the seller, BT-47 of the buyer. */
  readonly taxNumber: string;
};

/** An e-invoice or a credit note of the model of EN 16931-1; sums in minor units, days ISO or empty. */
export type EInvoice = {
  readonly kind: 'invoice' | 'credit-note';
  readonly number: string;
  readonly issuedOn: string;
  readonly dueOn: string;
  readonly currency: string;
  readonly note: string;
  readonly reference: string;
  readonly terms: string;
  readonly from: string;
  readonly to: string;
  /** The invoice that a credit note is about (BG-3); empty for none. */
  readonly preceding: string;
  readonly seller: Party;
  readonly buyer: Party;
  /** A bank transfer (BG-17); null where none is asked for. */
  readonly transfer: { readonly account: string; readonly holder: string; readonly bankCode: string } | null;
  readonly lines: readonly EInvoiceLine[];
  readonly allowances: readonly Change[];
  readonly charges: readonly Change[];
  readonly groups: readonly TaxGroup[];
  readonly sumOfLines: bigint;
  readonly allowanceTotal: bigint;
  readonly chargeTotal: bigint;
  readonly withoutTax: bigint;
  readonly taxTotal: bigint;
  readonly withTax: bigint;
  readonly paid: bigint;
  /** What is added to the total so that it is what is asked for (BT-114). */
  readonly rounding: bigint;
  readonly due: bigint;
};

/** Unit codes of UN/ECE recommendation 20. */
export const UNIT_CODES = {
  piece: 'H87',
  hour: 'HUR',
  day: 'DAY',
  week: 'WEE',
  month: 'MON',
  night: 'C62',
  kilogram: 'KGM',
  metre: 'MTR',
  litre: 'LTR',
  flat: 'LS',
} as const;

/** The category and rate as one word, to group by. */
export const groupKey = ({ category, rate }: Taxed): string => `${category} ${rate}`;

/** Total of sums in minor units. */
export const sum = (list: readonly bigint[]): bigint => list.reduce((a, b) => a + b, 0n);
