import type { TimelineEvent } from '../timeline/timeline';

/** What another program can be told of, by the words that it is told in; and what each is called at the desk. */
export const HOOK_KINDS = {
  'invoice-sent': 'An invoice is sent',
  'invoice-changed': 'An invoice is changed',
  'invoice-cancelled': 'An invoice is cancelled',
  'invoice-credited': 'A credit note is written',
  'order-placed': 'An order is placed',
  'payment-taken': 'A payment comes in',
  'payment-refused': 'A payment is refused',
  'payment-taken-back': 'A payment is taken back',
  'refund-made': 'Money is given back',
  'charge-made': 'A plan is charged',
  'charge-refused': 'A plan’s charge is refused',
  'plan-started': 'A plan starts',
  'plan-paused': 'A plan pauses',
  'plan-resumed': 'A plan goes on',
  'plan-ended': 'A plan ends',
  'dispute-opened': 'A payment is disputed',
  'dispute-answered': 'A dispute is answered',
  'dispute-decided': 'A dispute is decided',
  'label-bought': 'A label is bought',
  'label-voided': 'A label is given back',
  'shipment-sent': 'A customer is told that a parcel left',
  'shipment-moved': 'A parcel comes further, or arrives',
  'shipment-trouble': 'A parcel is late, lost, damaged or comes back',
} as const;

export type HookKind = keyof typeof HOOK_KINDS;
export const ALL_HOOK_KINDS = Object.keys(HOOK_KINDS) as HookKind[];

const OF: Partial<Record<TimelineEvent['kind'], HookKind>> = {
  sent: 'invoice-sent',
  changed: 'invoice-changed',
  cancelled: 'invoice-cancelled',
  credited: 'invoice-credited',
  ordered: 'order-placed',
  paid: 'payment-taken',
  refused: 'payment-refused',
  'payment-taken-back': 'payment-taken-back',
  'debit-returned': 'payment-taken-back',
  'given-back': 'refund-made',
  'charge-made': 'charge-made',
  'charge-not-made': 'charge-refused',
  'plan-started': 'plan-started',
  'plan-paused': 'plan-paused',
  'plan-resumed': 'plan-resumed',
  'plan-ended': 'plan-ended',
  disputed: 'dispute-opened',
  'dispute-answered': 'dispute-answered',
  'dispute-won': 'dispute-decided',
  'dispute-lost': 'dispute-decided',
  'label-bought': 'label-bought',
  'label-voided': 'label-voided',
  'parcel-left': 'shipment-sent',
  'parcel-moved': 'shipment-moved',
  'parcel-trouble': 'shipment-trouble',
};

/** What another program is told of a line of a timeline; null for what concerns people alone. */
export const hookKindOf = ({ kind }: Pick<TimelineEvent, 'kind'>): HookKind | null => OF[kind] ?? null;
