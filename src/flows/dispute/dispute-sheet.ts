import { mayAnswer } from '@/core/dispute/dispute';
import type { FilePart } from '@/core/dispute/payment-file';
import { type Business, businessById } from '@/db/businesses';
import { chargesByIds } from '@/db/charges';
import { type DisputeCursor, type DisputeRow, disputeById, disputeRows, disputesToAnswer } from '@/db/disputes';
import { paymentById } from '@/db/payments';
import { planById } from '@/db/plans';
import type { Db } from '@/db/pool';
import { desk } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { knownOf } from './gather-file';

export type { DisputeRow };

const PAGE = 40;
const MOST_OPEN = 100;

export type DisputePage = {
  readonly business: Business;
  readonly rows: readonly DisputeRow[];
  readonly next: DisputeCursor | null;
};

async function pageOf(db: Db, after: DisputeCursor | null): Promise<Omit<DisputePage, 'business'>> {
  const rows = await disputeRows(db, PAGE + 1, after);
  const shown = rows.slice(0, PAGE);
  const last = rows.length > PAGE ? shown.at(-1) : undefined;
  return {
    rows: shown.filter(({ state }) => state !== 'open'),
    next: last ? { key: last.cursor, id: last.id } : null,
  };
}

/** Disputes: those that want an answer, the most pressing first; then the others, latest first. */
export const disputeList = desk('see').read(
  async (db): Promise<DisputePage & { readonly open: readonly DisputeRow[]; readonly now: Date }> => ({
    business: await businessById(db),
    open: await disputesToAnswer(db, MOST_OPEN),
    now: db.now,
    ...(await pageOf(db, null)),
  }),
);

/** Further disputes, after one. */
export const disputePage = desk('see').read(
  async (db, after: DisputeCursor): Promise<DisputePage> => ({
    business: await businessById(db),
    ...(await pageOf(db, after)),
  }),
);

/** A dispute with all that its sheet shows. */
export type DisputeSheet = {
  readonly business: Business;
  readonly now: Date;
  readonly dispute: DisputeRow;
  readonly mayAnswer: boolean;
  /** What is known of the payment, part by part. */
  readonly parts: readonly FilePart[];
  /** The plan whose charge it was, where it goes on. */
  readonly plan: { readonly id: string; readonly name: string } | null;
};

/** @throws Refusal `not-found` */
export const disputeSheet = desk('see').read(async (db, id: string): Promise<DisputeSheet> => {
  const dispute = found(await disputeById(db, id));
  const payment = found(await paymentById(db, dispute.paymentId));
  const [charge] = payment.chargeId ? await chargesByIds(db, [payment.chargeId]) : [];
  const plan = charge ? await planById(db, charge.planId) : null;
  return {
    business: await businessById(db),
    now: db.now,
    dispute,
    mayAnswer: mayAnswer(dispute, db.now),
    parts: await knownOf(db, dispute.paymentId),
    plan: plan?.state === 'active' ? { id: plan.id, name: plan.terms.name } : null,
  };
});
