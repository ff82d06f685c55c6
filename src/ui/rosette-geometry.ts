/** The mark in the rosette's middle. */
export type Centre = 'dot' | 'ring' | 'complete' | 'cross' | 'hand' | 'bars' | 'dash' | 'none';

/** How a state looks; the word of the state always stands beside it. */
export type RosetteLook = {
  readonly line: string;
  readonly centre: Centre;
  readonly dashed: boolean;
  readonly barred: boolean;
};

/** A state that has a rosette. */
export type RosetteState =
  | 'Draft'
  | 'Sent'
  | 'Seen'
  | 'Part-paid'
  | 'Paid'
  | 'Overdue'
  | 'Cancelled'
  | 'Refused'
  | 'Pending'
  | 'Voided'
  | 'Part-refunded'
  | 'Refunded'
  | 'Refund'
  | 'Open'
  | 'Paused'
  | 'Closed'
  | 'Waiting for card'
  | 'Active'
  | 'Finished'
  | 'Upcoming'
  | 'Charged'
  | 'Skipped'
  | 'Disputed'
  | 'Dispute lost'
  | 'Came back';

const look = (line: string, centre: Centre, more: { dashed?: boolean; barred?: boolean } = {}): RosetteLook => ({
  line: `var(--${line})`,
  centre,
  dashed: more.dashed ?? false,
  barred: more.barred ?? false,
});

export const ROSETTE_LOOKS: Readonly<Record<RosetteState, RosetteLook>> = {
  Draft: look('ink-soft', 'none', { dashed: true }),
  Sent: look('ink', 'ring'),
  Seen: look('ink', 'dot'),
  'Part-paid': look('plum', 'dot'),
  Paid: look('plum', 'complete'),
  Overdue: look('brick', 'dot'),
  Cancelled: look('ink-soft', 'none', { barred: true }),
  Refused: look('brick', 'cross'),
  Pending: look('ochre', 'hand'),
  Voided: look('ink-soft', 'none', { barred: true }),
  'Part-refunded': look('plum', 'dash'),
  Refunded: look('ink-soft', 'dash'),
  // Not a whole rosette: one petal that has fallen.
  Refund: look('brick', 'none'),
  Open: look('leaf', 'dot'),
  Paused: look('ink-soft', 'bars'),
  Closed: look('ink-soft', 'dash'),
  'Waiting for card': look('ochre', 'hand', { dashed: true }),
  Active: look('plum', 'dot'),
  Finished: look('plum', 'complete'),
  Upcoming: look('dusk', 'ring', { dashed: true }),
  Charged: look('plum', 'complete'),
  Skipped: look('ink-soft', 'dash'),
  Disputed: look('brick', 'hand'),
  'Dispute lost': look('brick', 'dash'),
  'Came back': look('brick', 'ring'),
};

/** How much of each of the six petals is filled, 0 to 1, clockwise from the top. */
export function petals(share: number): number[] {
  // Anything paid shows at least half a petal, and six full ones only what is complete.
  const filled = share >= 1 ? 6 : share <= 0 ? 0 : Math.min(5.9, Math.max(0.5, share * 6));
  return Array.from({ length: 6 }, (_, at) => Math.min(1, Math.max(0, filled - at)));
}
