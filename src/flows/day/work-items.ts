import type { CalendarDate } from '@/core/dates/calendar-date';
import type { Look } from '@/core/parcel/shipment';
import type { WorkGroup, WorkItem } from '@/core/today/work';
import type { waitingLines } from '@/db/bank-lines';
import type { FailingCard } from '@/db/cards';
import type { differingStatements } from '@/db/carrier-statements';
import type { MissedRow, UpcomingRow } from '@/db/charges';
import type { differingBatches } from '@/db/day-batches';
import type { DisputeRow } from '@/db/disputes';
import type { InvoiceRow } from '@/db/invoice-lists';
import type { FailedMessage } from '@/db/messages';
import type { Parcel } from '@/db/parcels';
import type { cameBackLately, PaymentRow } from '@/db/payments';
import type { PayoutRow } from '@/db/payouts';
import type { openQuestions } from '@/db/questions';
import type { StuckJob } from '@/db/stuck-jobs';
import type { ReturnRow } from '@/flows/returning/returns';
import type { StockLine } from '@/flows/stock/stock-desk';

/** The oldest of a plan's parts that are late, and what all of them come to. */
export type LateParts = {
  readonly kind: 'parts';
  readonly charge: UpcomingRow;
  readonly payBy: CalendarDate;
  readonly minor: bigint;
  readonly asked: Date | null;
};

/** One thing that needs a hand; `asked` is when its customer was last reminded of it, or asked for another card. */
export type QueueItem =
  | {
      readonly kind: 'charge';
      readonly charge: UpcomingRow;
      /** Charging again is of no use: the bank wants the card's holder, or no card is good any more. */
      readonly needsCard: boolean;
      readonly asked: Date | null;
    }
  | { readonly kind: 'missed'; readonly missed: MissedRow }
  | LateParts
  | { readonly kind: 'card'; readonly failing: FailingCard; readonly asked: Date | null }
  | { readonly kind: 'refused'; readonly payment: PaymentRow; readonly asked: Date | null }
  | {
      readonly kind: 'came-back';
      readonly payment: Awaited<ReturnType<typeof cameBackLately>>[number];
      readonly asked: Date | null;
    }
  | { readonly kind: 'checking'; readonly payment: PaymentRow }
  | { readonly kind: 'stuck'; readonly job: StuckJob }
  | { readonly kind: 'undelivered'; readonly message: FailedMessage }
  | { readonly kind: 'batch'; readonly batch: Awaited<ReturnType<typeof differingBatches>>[number] }
  | { readonly kind: 'payout'; readonly payout: PayoutRow }
  | { readonly kind: 'dispute'; readonly dispute: DisputeRow }
  | { readonly kind: 'parcel'; readonly parcel: Parcel; readonly look: Look }
  | { readonly kind: 'return'; readonly back: ReturnRow }
  | { readonly kind: 'carrier'; readonly differing: Awaited<ReturnType<typeof differingStatements>>[number] }
  | { readonly kind: 'stock'; readonly low: readonly StockLine[] }
  | { readonly kind: 'bank'; readonly waiting: Awaited<ReturnType<typeof waitingLines>>[number] }
  | { readonly kind: 'question'; readonly question: Awaited<ReturnType<typeof openQuestions>>[number] }
  | { readonly kind: 'late'; readonly invoice: InvoiceRow; readonly asked: Date | null }
  | { readonly kind: 'draft'; readonly invoice: InvoiceRow };

const named = (kind: string, id: string | null): string[] => (id ? [`${kind} ${id}`] : []);

/**
 * Where a thing stands among what is to do: under what is done about it, or among what mends itself: a retry that is planned, an answer
 * that is asked for, a customer who was reminded or asked since `since`.
 */
export function workItem(item: QueueItem, { since }: { readonly since: Date }): WorkItem<QueueItem> {
  const isWaitedFor = 'asked' in item && item.asked !== null && item.asked > since;
  const unlessAsked = (group: WorkGroup) => (isWaitedFor ? 'waits' : group);
  switch (item.kind) {
    case 'stuck':
      return { group: item.job.givenUp ? 'try' : 'waits', who: null, things: [`job ${item.job.key}`], of: item };
    case 'question':
      return { group: 'answer', who: item.question.customerId, things: [], of: item };
    case 'missed':
      return {
        group: 'decide',
        who: item.missed.customerId,
        things: named('plan', item.missed.planId),
        of: item,
      };
    case 'charge': {
      const { charge } = item;
      const group = item.needsCard ? 'card' : 'charge';
      // A retry with a card that is known to be of no use mends nothing.
      const waits = item.needsCard ? isWaitedFor : charge.actAt !== null;
      const things = named('charge', charge.id);
      return { group: waits ? 'waits' : group, who: charge.customerId, things, of: item };
    }
    case 'card':
      return {
        group: unlessAsked('card'),
        who: item.failing.customerId,
        things: named('plan', item.failing.planId),
        of: item,
      };
    case 'parts': {
      const { customerId: who, planId, invoiceId } = item.charge;
      return {
        group: unlessAsked('remind'),
        who,
        things: [...named('plan', planId), ...named('invoice', invoiceId)],
        of: item,
      };
    }
    case 'refused':
    case 'came-back': {
      const { customerId: who, invoiceId } = item.payment;
      return { group: unlessAsked('remind'), who, things: named('invoice', invoiceId), of: item };
    }
    case 'late': {
      const { customerId: who, id } = item.invoice;
      return { group: unlessAsked('remind'), who, things: named('invoice', id), of: item };
    }
    case 'undelivered':
      return { group: 'resend', who: item.message.aboutId, things: [], of: item };
    case 'checking':
      return { group: 'waits', who: item.payment.customerId, things: named('payment', item.payment.id), of: item };
    case 'dispute': {
      const { dispute } = item;
      return { group: 'defend', who: dispute.customerId, things: named('dispute', dispute.id), of: item };
    }
    case 'batch':
      return { group: 'compare', who: null, things: [], of: item };
    case 'return':
      return { group: 'answer', who: null, things: named('return', item.back.id), of: item };
    case 'carrier':
      return { group: 'compare', who: null, things: [], of: item };
    case 'stock':
      return { group: 'order', who: null, things: [], of: item };
    case 'bank':
      return { group: 'match', who: null, things: [], of: item };
    case 'payout':
      return { group: 'payout', who: item.payout.partnerId, things: [`payout ${item.payout.id}`], of: item };
    case 'parcel':
      return { group: 'deliver', who: item.parcel.customerId, things: named('parcel', item.parcel.id), of: item };
    case 'draft':
      return { group: 'finish', who: item.invoice.customerId, things: named('invoice', item.invoice.id), of: item };
  }
}
