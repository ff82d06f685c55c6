import type { Look, ParcelState } from '@/core/parcel/shipment';

/** A shipment as a list shows it. */
export type ShipmentRowShown = {
  readonly id: string;
  readonly href: string;
  readonly name: string;
  readonly under: string;
  readonly state: ParcelState;
  readonly look: Look | null;
  readonly right: string;
  readonly when: string;
  readonly number: string;
  readonly notTold: boolean;
  readonly group: string;
};
