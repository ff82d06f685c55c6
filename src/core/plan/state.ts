/** How a plan stands. A draft has not been handed to anybody; the others are the trade's words. */
export const PLAN_STATES = ['draft', 'waiting', 'active', 'paused', 'finished', 'cancelled'] as const;
export type PlanState = (typeof PLAN_STATES)[number];

export const PLAN_STATE_WORDS = {
  draft: 'Draft',
  waiting: 'Waiting for card',
  active: 'Active',
  paused: 'Paused',
  finished: 'Finished',
  cancelled: 'Cancelled',
} as const satisfies Readonly<Record<PlanState, string>>;

/** How a charge stands: under way while the processor is asked, billed where an invoice went out instead. */
export const CHARGE_STATES = ['upcoming', 'charging', 'billed', 'charged', 'refused', 'skipped'] as const;
export type ChargeState = (typeof CHARGE_STATES)[number];

export const CHARGE_STATE_WORDS = {
  upcoming: 'Upcoming',
  charging: 'Under way',
  billed: 'Invoice sent',
  charged: 'Charged',
  refused: 'Refused',
  skipped: 'Skipped',
} as const satisfies Readonly<Record<ChargeState, string>>;
