import type { Asked, OfferField, OfferKind } from './offer';

/** An item as the payer's form needs it; prices written out. */
export type ShownOfferItem = {
  readonly id: string;
  readonly name: string;
  readonly note: string;
  readonly price: string;
  readonly least: number;
  readonly most: number;
  /** How many can still be had, or null where no stock is kept. */
  readonly left: number | null;
  readonly options: readonly {
    readonly id: string;
    readonly name: string;
    readonly price: string;
    readonly left: number | null;
  }[];
};

/** An offer as the payer's form needs it. */
export type ShownOffer = {
  readonly kind: OfferKind;
  readonly currencies: readonly string[];
  readonly items: readonly ShownOfferItem[];
  /** Suggested amounts, decimals and written out. */
  readonly amounts: readonly { readonly value: string; readonly text: string }[];
  readonly ownAmount: boolean;
  /** Between which sums an own amount may lie, in words; empty where none may be typed, or any. */
  readonly ownSpan: string;
  /** The currencies that people of a country are used to, where they can pay in them. */
  readonly usualIn: Readonly<Record<string, string>>;
  readonly purposes: readonly string[];
  readonly codes: boolean;
  /** Whether a gift voucher can pay some of it; whether it buys some, and until which day one can be sent. */
  readonly takesVoucher: boolean;
  readonly sellsVoucher: { readonly from: string; readonly to: string } | null;
  readonly delivers: boolean;
  /** All countries, and the codes of those where it is delivered to. */
  readonly countries: readonly { readonly code: string; readonly name: string }[];
  readonly deliveredTo: readonly string[];
  readonly tip: readonly string[] | null;
  readonly phone: Asked;
  readonly billing: Asked;
  readonly message: boolean;
  readonly fields: readonly OfferField[];
  readonly terms: { readonly name: string; readonly text: string } | null;
  /** How often it can be paid, and what is agreed to then; `{customer}` stands for the payer's name. */
  readonly repeat: {
    readonly choices: readonly { readonly value: string; readonly text: string }[];
    readonly agreement: string;
    readonly note: string;
  } | null;
};

/** A quote as the payer's page shows it: everything already in words and figures, sums also in minor units. */
export type ShownQuote = {
  /** To be handed back with the choice: what the quote is held to. */
  readonly token: string;
  readonly currency: string;
  readonly rows: readonly { readonly label: string; readonly text: string }[];
  readonly total: string;
  readonly totalMinor: number;
  /** What is left for the card. */
  readonly charged: string;
  readonly chargedMinor: number;
  readonly problems: readonly { readonly field: string; readonly words: string }[];
  readonly codeCounts: boolean;
  /** What a gift voucher pays, and what stays on it, in words; null where none counts. */
  readonly voucher: { readonly paid: string; readonly stays: string } | null;
  readonly rateNote: string;
  /** What is charged later, where the payment is repeated, and its sum; empty and null for once. */
  readonly later: string;
  readonly laterMinor: number | null;
};
