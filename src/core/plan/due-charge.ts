import { leastOf } from '../money/money';
import { after, type ChangedCharge, type Charge } from './charge';
import type { PlanState } from './state';

/** What is known of a due charge when it is decided. Amounts in minor units. */
export type DueFacts = {
  readonly plan: {
    readonly state: PlanState;
    readonly pay: 'card' | 'invoice';
    readonly kind: 'membership' | 'instalments';
  };
  /** The invoice that it is paid into, or in words why none could be issued. `leftMinor` is what nobody is just paying. */
  readonly invoice:
    | { readonly id: string; readonly totalMinor: bigint; readonly leftMinor: bigint }
    | { readonly problem: string };
  /** The plan's cards that are not known to be of no use, in their order. */
  readonly usable: readonly string[];
  /** All of the customer's: one that a person chose for this charge need not be the plan's. */
  readonly choosable?: readonly string[];
  readonly paymentId: string;
  readonly now: Date;
};

/** What is to happen with a due charge; `without-card` is refused by the policy without asking the processor. */
export type Decided =
  | { readonly kind: 'settled' | 'held' | 'not-billed' | 'asked-for'; readonly charge: ChangedCharge }
  | { readonly kind: 'attempt'; readonly charge: ChangedCharge; readonly cardId: string }
  | { readonly kind: 'without-card'; readonly charge: ChangedCharge };

/** Decides one due charge. */
export function decideCharge(
  charge: Charge,
  { plan, invoice, usable, choosable = usable, paymentId, now }: DueFacts,
): Decided {
  if (plan.state !== 'active') return { kind: 'held', charge: after(charge, { kind: 'held' }) };
  if ('problem' in invoice)
    return { kind: 'not-billed', charge: after(charge, { kind: 'not-billed', problem: invoice.problem }) };
  // What an invoice of its own comes to counts: taxes may be others than when the date was planned.
  const ownInvoice = plan.kind === 'membership' && !charge.invoiceId;
  const wanted = ownInvoice ? invoice.totalMinor : charge.amountMinor;
  const invoiced = after(charge, { kind: 'invoiced', invoiceId: invoice.id, amountMinor: wanted });
  const amountMinor = leastOf(invoice.leftMinor, wanted);
  if (amountMinor <= 0n) return { kind: 'settled', charge: after(invoiced, { kind: 'nothing-due', at: now }) };
  if (plan.pay === 'invoice') return { kind: 'asked-for', charge: after(invoiced, { kind: 'asked-for', amountMinor }) };
  const cardId = choosable.find((id) => id === charge.cardId) ?? usable.find((id) => !charge.tried.includes(id));
  if (!cardId) return { kind: 'without-card', charge: invoiced };
  return { kind: 'attempt', cardId, charge: after(invoiced, { kind: 'attempted', paymentId, cardId, amountMinor }) };
}
