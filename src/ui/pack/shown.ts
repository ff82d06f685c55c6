import type { CustomsPart, CustomsProblem } from '@/core/customs/declaration';
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

/** What a row says while customs lack something: pressed, it opens what they are told. */
export const CUSTOMS_ASK = 'Customs ask for more';

/** What customs are told of a parcel, as it is changed; `minor` is null for who sees no sums. */
export type CustomsShown = {
  readonly part: CustomsPart;
  readonly problems: readonly CustomsProblem[];
  readonly lines: readonly {
    readonly place: number;
    readonly what: string;
    readonly quantity: string;
    readonly declaredAs: string;
    readonly hsCode: string;
    readonly origin: string;
    /** Of one; 0 where nobody said. */
    readonly netGrams: number;
    readonly minor: number | null;
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
  readonly lines: readonly {
    readonly place: number;
    readonly what: string;
    readonly quantity: string;
    readonly itemId: string | null;
  }[];
  readonly shelves: readonly { readonly shelf: string; readonly what: string; readonly quantity: string }[];
  readonly sales: readonly {
    readonly number: string;
    readonly invoiceId: string | null;
    readonly orderId: string | null;
    readonly offer: { readonly id: string; readonly name: string } | null;
  }[];
  readonly wish: string;
  readonly wantedBy: string;
  /** Null where no border asks. */
  readonly customs: CustomsShown | null;
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
