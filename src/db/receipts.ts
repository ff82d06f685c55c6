import type { PrintedReceipt } from '@/core/receipt/receipt';
import type { Db, Tx } from './pool';
import { many, maybeOne, records, run, sql } from './sql';

export type Receipt = {
  readonly id: string;
  readonly number: string;
  readonly paymentId: string;
  readonly invoiceId: string | null;
  readonly orderId: string | null;
  readonly printed: PrintedReceipt;
};

export const insertReceipts = (tx: Tx, receipts: readonly Receipt[]): Promise<number> =>
  run(
    tx,
    sql`insert into receipts (id, business_id, number, payment_id, invoice_id, order_id, printed, issued_at)
        select id, ${tx.businessId}, number, "paymentId", "invoiceId", "orderId", printed, ${tx.now}
        from jsonb_to_recordset(${records(receipts)}::jsonb)
          as given (id uuid, number text, "paymentId" uuid, "invoiceId" uuid, "orderId" uuid, printed jsonb)`,
  );

export const updateReceipt = (tx: Tx, id: string, printed: PrintedReceipt): Promise<number> =>
  run(
    tx,
    sql`update receipts set printed = ${JSON.stringify(printed)} where business_id = ${tx.businessId} and id = ${id}`,
  );

export const receiptOfPayment = (db: Db, paymentId: string): Promise<Receipt | null> =>
  maybeOne(
    db,
    sql`select id, number, payment_id as "paymentId", invoice_id as "invoiceId", order_id as "orderId", printed
        from receipts where business_id = ${db.businessId} and payment_id = ${paymentId}`,
  );

/** The receipt with this number on this invoice. */
export const receiptByNumber = (db: Db, invoiceId: string, number: string): Promise<Receipt | null> =>
  maybeOne(
    db,
    sql`select id, number, payment_id as "paymentId", invoice_id as "invoiceId", order_id as "orderId", printed
        from receipts where business_id = ${db.businessId} and invoice_id = ${invoiceId} and number = ${number}`,
  );

/** A customer's receipts, latest first, with where the customer opens each. Sums in minor units. */
export const receiptsOfCustomer = (
  db: Db,
  customerId: string,
  limit: number,
): Promise<{ number: string; on: string; minor: bigint; currency: string; link: string }[]> =>
  many(
    db,
    sql`select receipts.number, receipts.printed->>'paidOn' as "on", (payments.amount_minor + payments.tip_minor)::bigint as minor,
          payments.currency, coalesce('/i/' || invoices.link_token || '/receipts/' || receipts.number, '/o/' || orders.token || '/receipt') as link
        from receipts join payments on payments.business_id = receipts.business_id and payments.id = receipts.payment_id
        left join invoices on invoices.business_id = receipts.business_id and invoices.id = receipts.invoice_id
        left join orders on orders.business_id = receipts.business_id and orders.id = receipts.order_id
        where receipts.business_id = ${db.businessId} and payments.customer_id = ${customerId}
        order by receipts.issued_at desc, receipts.id limit ${limit}`,
  );
