import { type DisputeReason, type DisputeState, type LostBy, UNDECIDED } from '@/core/dispute/dispute';
import type { BatchDispute } from '@/core/payment/day-batch';
import type { Db, Tx } from './pool';
import { many, maybeOne, oneOf, run, sql } from './sql';

/** A file that the business adds to an answer. */
export type AddedFile = { readonly id: string; readonly name: string };

/** What a partner gave back of a disputed payment, minor units. */
export type DisputedPart = { readonly partnerId: string; readonly minor: number };

/** A dispute as it is kept; minor units of its payment's currency. */
export type Dispute = {
  readonly id: string;
  readonly paymentId: string;
  /** How the processor calls it. */
  readonly key: string;
  readonly reason: DisputeReason;
  readonly currency: string;
  readonly amountMinor: bigint;
  readonly feeMinor: bigint;
  readonly feeBackMinor: bigint;
  readonly partners: readonly DisputedPart[];
  readonly openedAt: Date;
  readonly answerBy: Date;
  readonly bookedAt: Date;
  readonly state: DisputeState;
  readonly words: string;
  readonly files: readonly AddedFile[];
  /** Parts of the file that stay out of the answer. */
  readonly leftOut: readonly string[];
  readonly accepted: boolean;
  readonly answeredBy: string;
  readonly sentAt: Date | null;
  readonly settledAt: Date | null;
  readonly lostBy: LostBy | null;
};

/** The same as a list shows it, with who paid and what for. */
export type DisputeRow = Dispute & {
  readonly customer: string;
  readonly customerId: string | null;
  readonly subject: string;
  readonly invoiceId: string | null;
  readonly cardScheme: string | null;
  readonly cardLast4: string | null;
};

const DISPUTE = sql`d.id, d.payment_id as "paymentId", d.key, d.reason, d.currency, d.amount_minor as "amountMinor", d.fee_minor as "feeMinor",
  d.fee_back_minor as "feeBackMinor", d.partners, d.opened_at as "openedAt", d.answer_by as "answerBy", d.booked_at as "bookedAt", d.state,
  d.words, d.files, d.left_out as "leftOut", d.accepted, d.answered_by as "answeredBy", d.sent_at as "sentAt", d.settled_at as "settledAt",
  d.lost_by as "lostBy"`;

const ROW = sql`${DISPUTE}, coalesce(customers.name, orders.printed->'payer'->>'name', '') as customer, p.customer_id as "customerId",
  coalesce(invoices.number, offers.name, '') as subject, p.invoice_id as "invoiceId", p.card_scheme as "cardScheme", p.card_last4 as "cardLast4"
  from disputes d join payments p on p.business_id = d.business_id and p.id = d.payment_id
    left join customers on customers.business_id = p.business_id and customers.id = p.customer_id
    left join orders on orders.business_id = p.business_id and orders.id = p.order_id
    left join offers on offers.business_id = orders.business_id and offers.id = orders.offer_id
    left join invoices on invoices.business_id = p.business_id and invoices.id = p.invoice_id`;

export type DisputeCursor = { readonly key: string; readonly id: string };

/** Disputes, latest first, after one of them. */
export const disputeRows = (
  db: Db,
  limit: number,
  after: DisputeCursor | null,
): Promise<(DisputeRow & { cursor: string })[]> =>
  many(
    db,
    sql`select to_char(d.booked_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"') as cursor, ${ROW} where d.business_id = ${db.businessId}
          and (${after?.key ?? null}::timestamptz is null or (d.booked_at, d.id) < (${after?.key ?? null}::timestamptz, ${after?.id ?? null}::uuid))
        order by d.booked_at desc, d.id desc limit ${limit}`,
  );

/** Disputes that want an answer, the most pressing first. */
export const disputesToAnswer = (db: Db, limit: number): Promise<DisputeRow[]> =>
  many(
    db,
    sql`select ${ROW} where d.business_id = ${db.businessId} and d.state = 'open' order by d.answer_by, d.id limit ${limit}`,
  );

export const disputeById = (db: Db, id: string): Promise<DisputeRow | null> =>
  maybeOne(db, sql`select ${ROW} where d.business_id = ${db.businessId} and d.id = ${id}`);

export const disputeOfPayment = (db: Db, paymentId: string): Promise<Dispute | null> =>
  maybeOne(
    db,
    sql`select ${DISPUTE} from disputes d where d.business_id = ${db.businessId} and d.payment_id = ${paymentId}`,
  );

/** The same, held until the transaction ends. */
export const lockedDispute = (tx: Tx, id: string): Promise<Dispute | null> =>
  maybeOne(
    tx,
    sql`select ${DISPUTE} from disputes d where d.business_id = ${tx.businessId} and d.id = ${id} for update`,
  );

/** How those that the processor names stand here, by its names. */
export const disputesByKeys = (db: Db, keys: readonly string[]): Promise<Dispute[]> =>
  many(
    db,
    sql`select ${DISPUTE} from disputes d where d.business_id = ${db.businessId} and d.key = any(${[...keys]}::text[])`,
  );

/** Writes an opened dispute down; the payment is marked with it. */
export async function insertDispute(
  tx: Tx,
  dispute: Pick<
    Dispute,
    | 'id'
    | 'paymentId'
    | 'key'
    | 'reason'
    | 'currency'
    | 'amountMinor'
    | 'feeMinor'
    | 'partners'
    | 'openedAt'
    | 'answerBy'
  >,
): Promise<void> {
  await run(
    tx,
    sql`insert into disputes (id, business_id, payment_id, key, reason, currency, amount_minor, fee_minor, partners, opened_at, answer_by,
          booked_at, state)
        values (${dispute.id}, ${tx.businessId}, ${dispute.paymentId}, ${dispute.key}, ${dispute.reason}, ${dispute.currency},
          ${dispute.amountMinor}, ${dispute.feeMinor}, ${JSON.stringify(dispute.partners)}, ${dispute.openedAt}, ${dispute.answerBy},
          ${tx.now}, 'open')`,
  );
  await markPayment(tx, dispute.paymentId, 'open');
}

const markPayment = (tx: Tx, paymentId: string, dispute: 'open' | 'won' | 'lost'): Promise<number> =>
  run(tx, sql`update payments set dispute = ${dispute} where business_id = ${tx.businessId} and id = ${paymentId}`);

/** Keeps what the business prepares as its answer; nothing where it is not open any more. */
export const updatePrepared = (
  tx: Tx,
  id: string,
  { words, files, leftOut }: Pick<Dispute, 'words' | 'files' | 'leftOut'>,
): Promise<number> =>
  run(
    tx,
    sql`update disputes set words = ${words}, files = ${JSON.stringify(files)}, left_out = ${JSON.stringify(leftOut)}
        where business_id = ${tx.businessId} and id = ${id} and state = 'open'`,
  );

/** The answer goes out: what is prepared, or that the loss is accepted. */
export const updateSending = (tx: Tx, id: string, by: string, accepted: boolean): Promise<number> =>
  run(
    tx,
    sql`update disputes set state = 'sending', accepted = ${accepted}, answered_by = ${by}
        where business_id = ${tx.businessId} and id = ${id} and state = 'open'`,
  );

/** The processor has the answer, or took none any more: then it is open until the decision is heard of. */
export const updateSent = (tx: Tx, id: string, taken: boolean): Promise<number> =>
  run(
    tx,
    sql`update disputes set state = ${taken ? 'sent' : 'open'}, sent_at = ${taken ? tx.now : null}
        where business_id = ${tx.businessId} and id = ${id} and state = 'sending'`,
  );

/** Writes the decision down, once. */
export async function updateDecided(
  tx: Tx,
  { id, paymentId }: Pick<Dispute, 'id' | 'paymentId'>,
  { lostBy, feeBackMinor }: { readonly lostBy: LostBy | null; readonly feeBackMinor: bigint },
): Promise<number> {
  const state = lostBy ? 'lost' : 'won';
  const rows = await run(
    tx,
    sql`update disputes set state = ${state}, lost_by = ${lostBy}, fee_back_minor = ${feeBackMinor}, settled_at = ${tx.now}
        where business_id = ${tx.businessId} and id = ${id} and state in ${oneOf(UNDECIDED)}`,
  );
  if (rows > 0) await markPayment(tx, paymentId, state);
  return rows;
}

/** Open disputes whose last day is before an instant, and of which nobody was reminded; from now on they were. */
export const takeToRemind = (
  tx: Tx,
  before: Date,
): Promise<Pick<Dispute, 'id' | 'paymentId' | 'answerBy' | 'currency' | 'amountMinor'>[]> =>
  many(
    tx,
    sql`update disputes set reminded_at = ${tx.now} where business_id = ${tx.businessId} and state = 'open' and reminded_at is null
          and answer_by < ${before} and answer_by > ${tx.now}
        returning id, payment_id as "paymentId", answer_by as "answerBy", currency, amount_minor as "amountMinor"`,
  );

/** What disputes moved in a span, its end not included, in order of time: what they took, and what won ones gave back. */
export const disputesBetween = (db: Db, from: Date, to: Date): Promise<(BatchDispute & { readonly at: Date })[]> =>
  many(
    db,
    sql`select key as "disputeId", payment_id as "paymentId", 'disputed' as kind, currency, amount_minor as "amountMinor",
          fee_minor as "feeMinor", booked_at as at
        from disputes where business_id = ${db.businessId} and booked_at >= ${from} and booked_at < ${to}
        union all
        select key, payment_id, 'dispute-won', currency, amount_minor, fee_back_minor, settled_at
        from disputes where business_id = ${db.businessId} and state = 'won' and settled_at >= ${from} and settled_at < ${to}
        order by at, "disputeId"`,
  );
