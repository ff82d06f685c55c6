import type { Db, Tx } from './pool';
import { many, maybeOne, run, sql } from './sql';

/** Money given back of a payment, in minor units. Its id is the key at the processor. */
export type Refund = {
  readonly id: string;
  readonly paymentId: string;
  readonly kind: 'refund' | 'void';
  readonly amountMinor: bigint;
  readonly reason: string;
  readonly state: 'pending' | 'done' | 'refused';
  readonly byName: string;
  readonly startedAt: Date;
};

const REFUND = sql`id, payment_id as "paymentId", kind, amount_minor as "amountMinor", reason, state, by_name as "byName",
  started_at as "startedAt"`;

export const refundById = (db: Db, id: string): Promise<Refund | null> =>
  maybeOne(db, sql`select ${REFUND} from refunds where business_id = ${db.businessId} and id = ${id}`);

export const refundByRequest = (db: Db, requestKey: string): Promise<Refund | null> =>
  maybeOne(db, sql`select ${REFUND} from refunds where business_id = ${db.businessId} and request_key = ${requestKey}`);

/** A payment's refunds, oldest first. */
export const refundsOf = (db: Db, paymentId: string): Promise<Refund[]> =>
  many(
    db,
    sql`select ${REFUND} from refunds where business_id = ${db.businessId} and payment_id = ${paymentId} order by started_at, id`,
  );

export const insertRefund = (
  tx: Tx,
  refund: Omit<Refund, 'state' | 'startedAt'> & { requestKey: string },
): Promise<number> =>
  run(
    tx,
    sql`insert into refunds (id, business_id, payment_id, kind, amount_minor, reason, state, request_key, by_name, started_at)
        values (${refund.id}, ${tx.businessId}, ${refund.paymentId}, ${refund.kind}, ${refund.amountMinor}, ${refund.reason},
          'pending', ${refund.requestKey}, ${refund.byName}, ${tx.now})`,
  );

export const updateRefund = (tx: Tx, id: string, state: 'done' | 'refused'): Promise<number> =>
  run(
    tx,
    sql`update refunds set state = ${state}, settled_at = ${tx.now}
        where business_id = ${tx.businessId} and id = ${id} and state = 'pending'`,
  );
