import type { CalendarDate } from '../dates/calendar-date';
import type { ReceivedBy } from '../ledger/movements';
import type { RefusalReason } from '../payment/outcome';
import type { Afterwards } from './dunning';
import type { ChargeState } from './state';

/** Why a charge is on its day or for its sum, as kept: sums are plain numbers. */
export type KeptReason = {
  readonly kind: string;
  readonly moved?: string;
  readonly wanted?: number;
  readonly minor?: number;
};

/** How money came: by a card (`Corvid ·0819`), or another way with a reference of the business's. */
export type HowPaid =
  | { readonly by: 'card'; readonly card: string }
  | { readonly by: ReceivedBy; readonly reference: string };

/** What is kept beside a charge's state: who decided it, or how it was paid. `problem` is what its invoice lacked. */
export type ChargeNote =
  | { readonly code: 'by-hand'; readonly by: string }
  | { readonly code: 'first-period-free' }
  | { readonly code: 'plan-ended' }
  | { readonly code: 'nothing-due' }
  | { readonly code: 'paid'; readonly how: HowPaid }
  | { readonly code: 'not-billed'; readonly problem: string }
  /** Its day went by while nothing was charged. */
  | { readonly code: 'missed' };

/** One charge of a plan; amounts in minor units. */
export type Charge = {
  readonly id: string;
  readonly planId: string;
  readonly customerId: string;
  readonly part: 'deposit' | 'period';
  readonly nominal: CalendarDate;
  readonly chargedOn: CalendarDate;
  readonly amountMinor: bigint;
  readonly currency: string;
  readonly reasons: readonly KeptReason[];
  readonly state: ChargeState;
  readonly note: ChargeNote | null;
  /** The day from which the customer is told of it; null where nobody is. */
  readonly noticeOn: CalendarDate | null;
  /** When the worker deals with it next; null where nothing is to be done or a person is waited for. */
  readonly actAt: Date | null;
  /** How many of the policy's days for trying again have been used. */
  readonly round: number;
  readonly attempts: number;
  /** The cards that this round has tried. */
  readonly tried: readonly string[];
  /** The card that is tried, or is to be tried next where it is not the first. */
  readonly cardId: string | null;
  readonly lastReason: RefusalReason | null;
  readonly invoiceId: string | null;
  readonly paymentId: string | null;
  readonly settledAt: Date | null;
  readonly carriedAt: Date | null;
  readonly carriedBy: string | null;
};

/** What follows a refusal, as decided: when it is tried again, with which card, or what becomes of the plan. */
export type NextTry =
  | { readonly kind: 'soon'; readonly at: Date }
  | { readonly kind: 'other-card'; readonly cardId: string; readonly at: Date }
  | { readonly kind: 'retry'; readonly at: Date }
  | { readonly kind: 'give-up'; readonly afterwards: Afterwards };

/** What can happen to a charge. Instants are the business's clock's; amounts in minor units. */
export type ChargeEvent =
  | { readonly kind: 'held' }
  | { readonly kind: 'invoiced'; readonly invoiceId: string; readonly amountMinor: bigint }
  | { readonly kind: 'asked-for'; readonly amountMinor: bigint }
  | { readonly kind: 'not-billed'; readonly problem: string }
  | { readonly kind: 'nothing-due'; readonly at: Date }
  | { readonly kind: 'attempted'; readonly paymentId: string; readonly cardId: string; readonly amountMinor: bigint }
  | { readonly kind: 'accepted'; readonly paymentId: string; readonly at: Date }
  | { readonly kind: 'refused'; readonly reason: RefusalReason; readonly next: NextTry }
  /** The bank debit that had paid it came back. */
  | { readonly kind: 'came-back'; readonly reason: RefusalReason; readonly next: NextTry }
  | { readonly kind: 'paid'; readonly how: HowPaid; readonly paymentId: string | null; readonly at: Date }
  /** The money was written down by mistake. */
  | { readonly kind: 'taken-back' }
  | { readonly kind: 'skipped'; readonly by: string; readonly at: Date }
  | { readonly kind: 'waived'; readonly by: string; readonly at: Date }
  | { readonly kind: 'plan-ended'; readonly at: Date }
  /** Its day went by while nothing was charged: it waits for a person, or is left out for good. */
  | { readonly kind: 'missed' }
  | { readonly kind: 'missed-out'; readonly at: Date }
  | {
      readonly kind: 'moved';
      readonly on: CalendarDate;
      readonly noticeOn: CalendarDate | null;
      readonly actAt: Date;
    }
  | { readonly kind: 'repriced'; readonly amountMinor: bigint }
  | { readonly kind: 'hurried'; readonly cardId: string | null; readonly at: Date }
  | { readonly kind: 'retried'; readonly at: Date };

declare const changed: unique symbol;
/** A charge as `after` made it: nothing else is written down. */
export type ChangedCharge = Charge & { readonly [changed]: true };

const NOT_MADE = ['upcoming', 'refused'] as const satisfies readonly ChargeState[];

/** From which states each event leads on. */
const FROM: Readonly<Record<ChargeEvent['kind'], readonly ChargeState[]>> = {
  held: NOT_MADE,
  invoiced: NOT_MADE,
  'asked-for': NOT_MADE,
  'not-billed': NOT_MADE,
  'nothing-due': NOT_MADE,
  attempted: NOT_MADE,
  accepted: ['charging'],
  // Without a card of any use it is refused before the processor hears of it.
  refused: ['charging', 'upcoming', 'refused'],
  'came-back': ['charged'],
  paid: ['upcoming', 'refused', 'billed'],
  'taken-back': ['charged', 'otherwise'],
  skipped: NOT_MADE,
  waived: [...NOT_MADE, 'billed'],
  'plan-ended': ['refused', 'billed'],
  missed: ['upcoming'],
  'missed-out': ['upcoming'],
  moved: NOT_MADE,
  repriced: ['upcoming'],
  hurried: NOT_MADE,
  retried: ['refused'],
};

/** Whether an event can happen to a charge as it stands. */
export const can = ({ state }: Pick<Charge, 'state'>, kind: ChargeEvent['kind']): boolean => FROM[kind].includes(state);

/** A charge is dealt with already, or under way: this cannot happen to it any more. */
export class ChargeSettled extends Error {
  override readonly name = 'ChargeSettled';
}

/**
 * One life of a charge, the only way from one state to the next:
 *
 *     planned ── upcoming ──attempted──▶ charging ──accepted──▶ charged
 *        │          │  ▲                    │
 *        │          │  └─ moved, hurried    └──refused──▶ refused ──attempted──▶ charging …
 *        │          │                                        │  (retried: from the first card again)
 *        │          │     (a bank debit that comes back: charged ──came back──▶ refused)
 *        │          ├──asked for──▶ billed ──paid──▶ charged │
 *        │          ├──paid──▶ otherwise ◀──────paid─────────┤
 *        │          ├──skipped, nothing due──▶ skipped ◀─────┤ (also where the plan ends)
 *        │          └──waived──▶ waived ◀────────────────────┘
 *        └── free (a first period that costs nothing)
 *
 * `charged`, `otherwise`, `free`, `waived` and `skipped` are final, but for a debit that comes back, and money by hand that is taken back: then `charged` is
 * `billed` again, and `otherwise` is `upcoming` and waits for a person.
 *
 * @throws ChargeSettled for what cannot happen to a charge as it stands
 */
export function after(charge: Charge, event: ChargeEvent): ChangedCharge {
  if (!can(charge, event.kind))
    throw new ChargeSettled(`${event.kind} cannot happen to a charge that is ${charge.state}`);
  return { ...charge, ...changes(charge, event) } as ChangedCharge;
}

function changes(charge: Charge, event: ChargeEvent): Partial<Charge> {
  switch (event.kind) {
    case 'held':
      return { actAt: null };
    case 'invoiced':
      return { invoiceId: event.invoiceId, amountMinor: event.amountMinor };
    case 'asked-for':
      return { state: 'billed', amountMinor: event.amountMinor, actAt: null };
    case 'not-billed':
      return { state: 'refused', note: { code: 'not-billed', problem: event.problem }, actAt: null };
    case 'nothing-due':
      return { state: 'skipped', note: { code: 'nothing-due' }, actAt: null, settledAt: event.at };
    case 'attempted':
      return {
        state: 'charging',
        note: null,
        actAt: null,
        attempts: charge.attempts + 1,
        tried: [...charge.tried, event.cardId],
        cardId: event.cardId,
        paymentId: event.paymentId,
        amountMinor: event.amountMinor,
      };
    case 'accepted':
      return { state: 'charged', actAt: null, settledAt: event.at, paymentId: event.paymentId };
    case 'came-back': {
      const open = { settledAt: null, paymentId: null };
      return { ...changes({ ...charge, ...open, round: 0 }, { ...event, kind: 'refused' }), ...open };
    }
    case 'refused':
      return { state: 'refused', lastReason: event.reason, cardId: null, ...triedNext(charge, event.next) };
    case 'paid': {
      const settled = { actAt: null, settledAt: event.at, paymentId: event.paymentId };
      if (charge.state === 'billed') return { ...settled, state: 'charged' };
      return { ...settled, state: 'otherwise', note: { code: 'paid', how: event.how } };
    }
    case 'taken-back':
      // Asked for by invoice it is so again; else it waits for a person, and nothing is charged by itself.
      return {
        ...(charge.state === 'charged'
          ? ({ state: 'billed', note: null } as const)
          : ({ state: 'upcoming', note: { code: 'missed' } } as const)),
        actAt: null,
        settledAt: null,
        paymentId: null,
      };
    case 'skipped':
    case 'waived':
      return { state: event.kind, note: { code: 'by-hand', by: event.by }, actAt: null, settledAt: event.at };
    case 'plan-ended':
      return { state: 'skipped', note: { code: 'plan-ended' }, actAt: null, settledAt: event.at };
    case 'missed':
      return { note: { code: 'missed' }, actAt: null };
    case 'missed-out':
      return { state: 'skipped', note: { code: 'missed' }, actAt: null, settledAt: event.at };
    case 'moved':
      return { chargedOn: event.on, noticeOn: event.noticeOn, actAt: event.actAt };
    case 'repriced':
      return { amountMinor: event.amountMinor };
    case 'hurried':
      return { cardId: event.cardId, tried: [], actAt: event.at };
    case 'retried':
      return { round: 0, tried: [], cardId: null, actAt: event.at };
  }
}

function triedNext(charge: Charge, next: NextTry): Partial<Charge> {
  switch (next.kind) {
    // It never reached the processor: as if that card had not been tried.
    case 'soon':
      return { tried: charge.tried.slice(0, -1), actAt: next.at };
    case 'other-card':
      return { cardId: next.cardId, actAt: next.at };
    case 'retry':
      return { round: charge.round + 1, tried: [], actAt: next.at };
    case 'give-up':
      return { actAt: null };
  }
}
