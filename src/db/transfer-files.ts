import type { PayeeAccount } from '@/core/refund/account';
import type { Db, Tx } from './pool';
import { many, maybeOne, run, sql } from './sql';

/** A refund that goes to the payer's account by transfer; minor units. */
export type RefundToTransfer = {
  readonly id: string;
  readonly paymentId: string;
  readonly currency: string;
  readonly amountMinor: bigint;
  readonly to: PayeeAccount;
  readonly reason: string;
  /** The invoice's number, or the order's reference. */
  readonly about: string;
};

const REFUND = sql`refunds.id, refunds.payment_id as "paymentId", payments.currency, refunds.amount_minor as "amountMinor",
    refunds.wish->'account' as to, refunds.reason, coalesce(invoices.number, orders.reference, '') as about
  from refunds join payments on payments.business_id = refunds.business_id and payments.id = refunds.payment_id
    left join invoices on invoices.business_id = payments.business_id and invoices.id = payments.invoice_id
    left join orders on orders.business_id = payments.business_id and orders.id = payments.order_id`;

/** So many transfers go into a file at the most. */
const MOST = 1000;

/** Refunds that wait to go to the bank, oldest first. */
export const refundsToTransfer = (db: Db): Promise<RefundToTransfer[]> =>
  many(
    db,
    sql`select ${REFUND} where refunds.business_id = ${db.businessId} and refunds.method = 'transfer' and refunds.state = 'done'
          and refunds.transfer_file_id is null and refunds.wish ? 'account'
        order by refunds.settled_at, refunds.id limit ${MOST}`,
  );

export const refundsOfFile = (db: Db, fileId: string): Promise<RefundToTransfer[]> =>
  many(
    db,
    sql`select ${REFUND} where refunds.business_id = ${db.businessId} and refunds.transfer_file_id = ${fileId}
        order by refunds.settled_at, refunds.id`,
  );

export type TransferFile = { readonly id: string; readonly madeAt: Date; readonly byName: string };

export const insertTransferFile = (tx: Tx, id: string, byName: string): Promise<number> =>
  run(
    tx,
    sql`insert into transfer_files (id, business_id, made_at, by_name) values (${id}, ${tx.businessId}, ${tx.now}, ${byName})
        on conflict do nothing`,
  );

export const transferFileById = (db: Db, id: string): Promise<TransferFile | null> =>
  maybeOne(
    db,
    sql`select id, made_at as "madeAt", by_name as "byName" from transfer_files where business_id = ${db.businessId} and id = ${id}`,
  );

/** The latest files, newest first. */
export const transferFiles = (db: Db, limit: number): Promise<TransferFile[]> =>
  many(
    db,
    sql`select id, made_at as "madeAt", by_name as "byName" from transfer_files where business_id = ${db.businessId}
        order by made_at desc, id limit ${limit}`,
  );

/** Puts refunds into a file; one that is in another stays there. */
export const putIntoFile = (tx: Tx, fileId: string, ids: readonly string[]): Promise<number> =>
  run(
    tx,
    sql`update refunds set transfer_file_id = ${fileId}
        where business_id = ${tx.businessId} and id = any(${[...ids]}::uuid[]) and transfer_file_id is null`,
  );
