import type { Seeded } from '../seeded';

/** What a card's holder asked their bank to get back: it is taken from the merchant at once, with a fee, until the bank decides. */
export type Dispute = {
  readonly id: string;
  readonly amount: number;
  readonly fee: number;
  readonly reason: string;
  readonly at: string;
  /** Until when the merchant may answer. */
  readonly answerBy: string;
  readonly answer: { readonly kind: 'file' | 'accept'; readonly at: string; readonly bytes: number } | null;
  readonly decided: {
    readonly at: string;
    readonly won: boolean;
    readonly by: 'decision' | 'silence' | 'accepted';
    readonly feeBack: number;
  } | null;
};

/** What of a sale decides about its dispute. */
type Disputable = {
  readonly id: string;
  readonly key: string;
  readonly amount: number;
  readonly status: string;
  readonly at: string;
  readonly refunds: readonly { readonly amount: number }[];
  readonly dispute: Dispute | null;
  /** Whether its holder is one who disputes later. */
  readonly disputes: boolean;
};

const DAY_MS = 86_400_000;
const DISPUTED_AFTER_MS = 7 * DAY_MS;
const ANSWER_WITHIN_MS = 14 * DAY_MS;
const DECIDED_AFTER_MS = 10 * DAY_MS;
const FEE = 1500;
const REASONS = ['not-recognised', 'not-received', 'not-as-described', 'charged-twice', 'cancelled'];

const iso = (at: number): string => new Date(at).toISOString();

/** Whether the holder's bank has the money of a sale. */
export const isTaken = ({ dispute }: Disputable): boolean => dispute !== null && dispute.decided?.won !== true;

/** What a holder asks for of a sale: all that is left; null where that is nothing, or was asked for before. */
export function opened(sale: Disputable, reason: string, at: number, seeded: Seeded): Dispute | null {
  const amount = sale.amount - sale.refunds.reduce((sum, refund) => sum + refund.amount, 0);
  if (sale.status !== 'accepted' || sale.dispute || amount <= 0) return null;
  return {
    id: `dispute_${seeded.hex(`dispute ${sale.key}`, 20)}`,
    amount,
    fee: FEE,
    reason,
    at: iso(at),
    answerBy: iso(at + ANSWER_WITHIN_MS),
    answer: null,
    decided: null,
  };
}

/** A dispute that the bank has decided; a won one brings its fee back. */
export const decided = (
  dispute: Dispute,
  { won, by, at }: { won: boolean; by: 'decision' | 'silence' | 'accepted'; at: number },
): Dispute => ({ ...dispute, decided: { at: iso(at), won, by, feeBack: won ? dispute.fee : 0 } });

/** The dispute of a sale as time leaves it: opened by a holder who does so later, and decided after an answer or without one. */
export function disputeAsOf(sale: Disputable, now: number, seeded: Seeded): Dispute | null {
  const later = Date.parse(sale.at) + DISPUTED_AFTER_MS;
  const reason = REASONS[seeded.between(`reason ${sale.id}`, 0, REASONS.length - 1)] ?? 'other';
  const dispute = sale.dispute ?? (sale.disputes && now >= later ? opened(sale, reason, later, seeded) : null);
  if (!dispute || dispute.decided) return dispute;
  const { answer } = dispute;
  if (!answer) {
    const last = Date.parse(dispute.answerBy);
    return now > last ? decided(dispute, { won: false, by: 'silence', at: last }) : dispute;
  }
  const answeredAt = Date.parse(answer.at);
  if (answer.kind === 'accept') return decided(dispute, { won: false, by: 'accepted', at: answeredAt });
  const due = answeredAt + DECIDED_AFTER_MS;
  const won = seeded.between(`decision ${sale.id}`, 0, 1) === 1;
  return now < due ? dispute : decided(dispute, { won, by: 'decision', at: due });
}
