import type { ReactNode } from 'react';
import type { CalendarDate } from '@/core/dates/calendar-date';
import type { ShownCard } from '@/core/plan/shown-card';
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
  readonly endsOn: CalendarDate | null;
  /** Whether a change waits until the customer agrees to it. */
  readonly proposed: boolean;
};

export type SheetCharge = DrawnCharge & {
  readonly id: string;
  readonly state: ChargeState;
  readonly words: string;
  readonly trouble: string;
  /** When a refused one is tried next; empty where it is not by itself. */
  readonly next: string;
  /** Until when one that was asked for by invoice is to be paid. */
  readonly payBy: CalendarDate | null;
  readonly invoiceId: string | null;
  /** Whether its day went by while nothing was charged, and somebody is to decide. */
  readonly missed: boolean;
  readonly attempts: readonly { readonly when: string; readonly words: string; readonly paymentId: string }[];
};

/** All that the sheet is told. */
export type PlanSheetProps = {
  plan: SheetPlan;
  customer: { id: string; name: string; email: string; phone: string };
  charges: readonly SheetCharge[];
  /** What is planned while nothing is written down yet. */
  planned: readonly DrawnCharge[];
  holidays: readonly string[];
  cards: readonly ShownCard[];
  authorisations: readonly { id: string; words: string; withdrawn: string }[];
  invoice: { id: string; number: string } | null;
  link: string;
  locale: string;
  today: CalendarDate;
  fieldsUrl: string;
  mayAsk: boolean;
  timeline: ReactNode;
};
