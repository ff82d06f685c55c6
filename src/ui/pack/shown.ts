import type { Block, Recipient } from '@/core/parcel/handover';
import type { Address } from '@/core/place/address';

/** A sale that waits to be packed, as the list shows it; `kept` says what keeps it. */
export type PackRowShown = {
  readonly id: string;
  readonly name: string;
  readonly number: string;
  readonly what: string;
  readonly city: string;
  readonly readyAt: string;
  readonly wantedBy: string | null;
  readonly block: Block;
  readonly kept: string;
  readonly recipient: Recipient;
  readonly wish: string;
  readonly invoiceId: string | null;
  readonly orderId: string | null;
};

/** What a parcel on the paper costs, in minor units; null where it is not known. */
export type CostShown = {
  readonly paid: number | null;
  readonly rate: number | null;
  readonly packaging: number;
  readonly insurance: number;
  readonly total: number | null;
  readonly left: number | null;
  readonly rates: readonly {
    readonly service: string;
    readonly name: string;
    readonly minor: number;
    readonly promised: string;
  }[];
};

/** A parcel on the paper, as it is shown; `cost` only for who sees sums. */
export type PaperRowShown = {
  readonly id: string;
  readonly state: 'packing' | 'buying';
  readonly name: string;
  readonly recipient: Recipient;
  readonly what: string;
  readonly where: string;
  readonly abroad: string;
  readonly profileId: string;
  readonly profile: string;
  readonly size: string;
  readonly sides: { readonly lengthMm: number; readonly widthMm: number } | null;
  readonly byRule: boolean;
  readonly grams: number;
  readonly weight: string;
  readonly weighed: boolean;
  readonly service: string;
  readonly serviceName: string;
  readonly promised: string;
  readonly mailOn: string;
  readonly notice: 'on-day' | 'first-scan' | 'held';
  readonly faults: readonly string[];
  readonly warnings: readonly string[];
  /** What somebody should know of its mailing date. */
  readonly dayWarnings: readonly string[];
  /** How the carrier would write the address; null where it writes it so. */
  readonly proposal: Address | null;
  readonly trouble: string;
  readonly isBuyable: boolean;
  readonly lines: readonly { readonly place: number; readonly what: string; readonly quantity: string }[];
  readonly shelves: readonly { readonly shelf: string; readonly what: string; readonly quantity: string }[];
  readonly sales: readonly {
    readonly number: string;
    readonly invoiceId: string | null;
    readonly orderId: string | null;
  }[];
  readonly wish: string;
  readonly wantedBy: string;
  readonly cost: CostShown | null;
};

/** What the lot comes to, in minor units. */
export type LotShown = {
  readonly paid: number;
  readonly rate: number;
  readonly packaging: number;
  readonly insurance: number;
  readonly cost: number;
  readonly left: number;
  readonly carrier: number;
  readonly unknown: number;
};
