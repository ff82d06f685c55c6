import type { CalendarDate } from '@/core/dates/calendar-date';
import type { ChargeState, PlanState } from '@/core/plan/state';
import type { DrawnCharge } from './charge-words';

/** A plan as its sheet shows it; sums in minor units. */
export type SheetPlan = {
  readonly id: string;
  readonly number: string;
  readonly name: string;
  readonly kind: 'membership' | 'instalments';
  readonly pay: 'card' | 'invoice';
  readonly state: PlanState;
  readonly memo: string;
  readonly reference: string;
  readonly currency: string;
  readonly chargedMinor: number;
  readonly chargedCount: number;
  readonly plannedMinor: number | null;
  readonly plannedCount: number | null;
  readonly nextOn: CalendarDate | null;
  readonly price: string;
  readonly lapsesOn: CalendarDate | null;
};

export type SheetCharge = DrawnCharge & {
  readonly id: string;
  readonly state: ChargeState;
  readonly words: string;
  readonly trouble: string;
  /** When a refused one is tried next; empty where it is not by itself. */
  readonly next: string;
  readonly invoiceId: string | null;
  readonly attempts: readonly { readonly when: string; readonly words: string; readonly paymentId: string }[];
};
