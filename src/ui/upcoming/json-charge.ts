import type { CalendarDate } from '@/core/dates/calendar-date';
import type { RefusalReason } from '@/core/payment/outcome';
import type { ChargeState } from '@/core/plan/state';

/** A charge of some plan as lists show it; `minor` in minor units. */
export type JsonCharge = {
  readonly id: string;
  readonly planId: string;
  readonly on: CalendarDate;
  readonly nominal: CalendarDate;
  readonly customer: string;
  readonly plan: string;
  readonly number: string;
  readonly state: ChargeState;
  readonly minor: number;
  readonly currency: string;
  readonly reason: RefusalReason | null;
  /** When a refused one is tried again. */
  readonly againAt: string | null;
  readonly carried: { readonly at: string; readonly by: string } | null;
};
