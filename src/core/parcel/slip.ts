import type { Seller } from '../invoice/printed';

/** What goes along in a parcel, in its reader's language. */
export type PackingSlip = {
  readonly locale: string;
  readonly seller: Seller;
  readonly accent: string;
  readonly logoId: string | null;
  readonly to: readonly string[];
  /** The sales in it, each with what it is called. */
  readonly sales: readonly { readonly kind: 'invoice' | 'order'; readonly number: string }[];
  readonly lines: readonly { readonly what: string; readonly quantity: string }[];
  /** Whether something of its sales goes in another parcel. */
  readonly restFollows: boolean;
  readonly number: string;
};

/** Where things lie and into which parcels they go, in the order of the shelves: one walk along them packs the lot. */
export type PickingList = {
  readonly house: string;
  readonly title: string;
  readonly locale: string;
  readonly rows: readonly PickRow[];
};

export type PickRow = {
  readonly shelf: string;
  readonly what: string;
  /** How many over all, and of them for whom. */
  readonly quantity: string;
  readonly parcels: readonly { readonly name: string; readonly quantity: string }[];
};
