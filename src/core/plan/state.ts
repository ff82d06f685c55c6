/** How a plan stands. A draft has not been handed to anybody; the others are the trade's words. */
export const PLAN_STATES = ['draft', 'waiting', 'active', 'paused', 'finished', 'cancelled'] as const;
export type PlanState = (typeof PLAN_STATES)[number];

/** States in which a plan goes on: it makes charges now, or will again. */
export const RUNNING_STATES = ['active', 'paused'] as const satisfies readonly PlanState[];

export const PLAN_STATE_WORDS = {
  draft: 'Draft',
  waiting: 'Waiting for card',
  active: 'Active',
  paused: 'Paused',
  finished: 'Finished',
  cancelled: 'Cancelled',
} as const satisfies Readonly<Record<PlanState, string>>;

/**
 * How a charge stands: `charging` while the processor is asked, `billed` where an invoice went out instead, `otherwise` where the
 * money came another way; the last three never became money, and never will.
 */
export const CHARGE_STATES = [
  'upcoming',
  'charging',
  'billed',
  'refused',
  'charged',
  'otherwise',
  'free',
  'waived',
  'skipped',
] as const;
export type ChargeState = (typeof CHARGE_STATES)[number];

/** States in which a charge can still become money. */
export const OPEN_STATES = ['upcoming', 'charging', 'billed', 'refused'] as const satisfies readonly ChargeState[];
/** States in which it has. */
export const PAID_STATES = ['charged', 'otherwise'] as const satisfies readonly ChargeState[];
/** States in which it counts in what a plan comes to. */
export const COUNTED_STATES = [...OPEN_STATES, ...PAID_STATES] as const;

/** Whether a charge in this state counts in what a plan comes to. */
export const isCounted = (state: ChargeState): boolean => COUNTED_STATES.some((one) => one === state);

export const CHARGE_STATE_WORDS = {
  upcoming: 'Upcoming',
  charging: 'Under way',
  billed: 'Invoice sent',
  refused: 'Refused',
  charged: 'Charged',
  otherwise: 'Paid otherwise',
  free: 'Free',
  waived: 'Waived',
  skipped: 'Skipped',
} as const satisfies Readonly<Record<ChargeState, string>>;
