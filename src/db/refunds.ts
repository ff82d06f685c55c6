import type { PaymentMethod } from '@/core/payment/methods';
import type { Aside } from '@/core/refund/aside';
import type { KeptStep } from '@/core/refund/printed-document';
import type { Db, Tx } from './pool';
import { many, maybeOne, run, sql } from './sql';

/** Money given back of a payment, in minor units; the tip is in the amount. Its id is the key at the processor. */
export type Refund = {
  readonly id: string;
  readonly paymentId: string;
  /** `return`: a debit that the payer's bank took back. */
  readonly kind: 'refund' | 'void' | 'return';
  /** How it goes back: to the card, or another way by hand. */
  readonly method: PaymentMethod;
  /** Of the cheque or the transfer by which it went back. */
  readonly reference: string;
  readonly amountMinor: bigint;
  readonly tipMinor: bigint;
  /** What the bank asks for a debit that came back. */
  readonly feeMinor: bigint;
  /** How what was paid for is credited; null where it is not. */
  readonly step: KeptStep | null;
  readonly wish: Aside;
  readonly creditId: string | null;
  readonly reason: string;
  readonly state: 'pending' | 'done' | 'refused';
  readonly byName: string;
  readonly startedAt: Date;
  readonly settledAt: Date | null;
};

const REFUND = sql`id, payment_id as "paymentId", kind, method, reference, amount_minor as "amountMinor", tip_minor as "tipMinor", fee_minor as "feeMinor", step,
  wish, credit_id as "creditId", reason, state, by_name as "byName", started_at as "startedAt", settled_at as "settledAt"`;

export const refundById = (db: Db, id: string): Promise<Refund | null> =>
  maybeOne(db, sql`select ${REFUND} from refunds where business_id = ${db.businessId} and id = ${id}`);

export const refundByRequest = (db: Db, requestKey: string): Promise<Refund | null> =>
  maybeOne(db, sql`select ${REFUND} from refunds where business_id = ${db.businessId} and request_key = ${requestKey}`);

/** Which of these are refunds that are written down. */
export async function knownRefunds(db: Db, ids: readonly string[]): Promise<Set<string>> {
  const rows = await many<{ id: string }>(
    db,
    sql`select id from refunds where business_id = ${db.businessId} and id = any(${[...ids]}::uuid[])`,
  );
  return new Set(rows.map(({ id }) => id));
}

/** A payment's refunds, oldest first. */
export const refundsOf = (db: Db, paymentId: string): Promise<Refund[]> =>
  many(
    db,
    sql`select ${REFUND} from refunds where business_id = ${db.businessId} and payment_id = ${paymentId} order by started_at, id`,
  );

/** The refunds of all payments of an order, oldest first. */
export const refundsOfOrder = (db: Db, orderId: string): Promise<Refund[]> =>
  many(
    db,
    sql`select ${REFUND} from refunds where business_id = ${db.businessId}
          and payment_id in (select id from payments where business_id = ${db.businessId} and order_id = ${orderId})
        order by started_at, id`,
  );

/** How many refunds of an invoice's payments are still being asked about. */
export const pendingRefundsOf = (db: Db, invoiceId: string): Promise<Refund[]> =>
  many(
    db,
    sql`select ${REFUND} from refunds
        where business_id = ${db.businessId} and state = 'pending'
          and payment_id in (select id from payments where business_id = ${db.businessId} and invoice_id = ${invoiceId})`,
  );

export const insertRefund = (
  tx: Tx,
  refund: Omit<Refund, 'state' | 'startedAt' | 'settledAt' | 'creditId' | 'feeMinor'> & {
    readonly feeMinor?: bigint;
    readonly requestKey: string;
  },
): Promise<number> =>
  run(
    tx,
    sql`insert into refunds (id, business_id, payment_id, kind, method, reference, amount_minor, tip_minor, fee_minor, step, wish, reason, state,
          request_key, by_name, started_at)
        values (${refund.id}, ${tx.businessId}, ${refund.paymentId}, ${refund.kind}, ${refund.method}, ${refund.reference},
          ${refund.amountMinor}, ${refund.tipMinor}, ${refund.feeMinor ?? 0n}, ${refund.step ? JSON.stringify(refund.step) : null},
          ${JSON.stringify(refund.wish)}, ${refund.reason}, 'pending', ${refund.requestKey}, ${refund.byName}, ${tx.now})`,
  );

export const updateRefund = (tx: Tx, id: string, state: 'done' | 'refused'): Promise<number> =>
  run(
    tx,
    sql`update refunds set state = ${state}, settled_at = ${tx.now}
        where business_id = ${tx.businessId} and id = ${id} and state = 'pending'`,
  );

/** Notes the credit note that came with a refund. */
export const updateRefundCredit = (tx: Tx, id: string, creditId: string): Promise<number> =>
  run(tx, sql`update refunds set credit_id = ${creditId} where business_id = ${tx.businessId} and id = ${id}`);
