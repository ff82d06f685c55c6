import type { Db, Tx } from './pool';
import { many, maybeOne, run, sql } from './sql';

export type MessageKind =
  | 'invoice'
  | 'receipt'
  | 'payment-notice'
  | 'reminder'
  | 'changed'
  | 'cancelled'
  | 'credit-note'
  | 'question'
  | 'answer'
  | 'trial'
  | 'statement'
  | 'notice'
  | 'request'
  | 'order-notice'
  | 'refund'
  | 'gift-letter'
  | 'plan-link'
  | 'plan-reminder'
  | 'charge-notice'
  | 'charge-refused'
  | 'part-due'
  | 'card-asked'
  | 'own-page'
  | 'plan-ended';

/** What a message says beside what its invoice, payment or credit note says. */
export type MessageDetails = {
  /** Words that a person wrote. */
  readonly text?: string;
  /** A reminder's distance from the due date in days. */
  readonly offset?: number;
  readonly creditId?: string;
  readonly from?: string;
  readonly to?: string;
  readonly subject?: string;
  /** The charge of a plan that it is about. */
  readonly chargeId?: string;
  /** A sum that the message names, in minor units. */
  readonly minor?: number;
};

/** One message to one address. `id` also makes an e-mail's Message-ID, so that a second copy can be told by the reader's program. */
export type Message = {
  readonly id: string;
  readonly kind: MessageKind;
  readonly way: 'mail' | 'text' | 'chat';
  readonly invoiceId: string | null;
  readonly orderId: string | null;
  readonly requestId: string | null;
  readonly customerId: string | null;
  readonly paymentId: string | null;
  readonly planId: string | null;
  readonly toName: string;
  readonly toAddress: string;
  readonly details: MessageDetails;
  readonly state: 'queued' | 'handed-over' | 'delivered' | 'failed' | 'bounced';
  readonly trouble: string | null;
};

export type NewMessage = Omit<Message, 'state' | 'trouble'> & { readonly key: string };

/** Queues a message unless one with this key was queued before; true if it is new. */
export async function insertMessage(tx: Tx, businessId: string, message: NewMessage, at: Date): Promise<boolean> {
  const touched = await run(
    tx,
    sql`insert into messages (id, business_id, kind, way, message_key, invoice_id, order_id, request_id, customer_id, payment_id, plan_id, to_name,
          to_address, details, state, created_at)
        values (${message.id}, ${businessId}, ${message.kind}, ${message.way}, ${message.key}, ${message.invoiceId},
          ${message.orderId}, ${message.requestId}, ${message.customerId}, ${message.paymentId}, ${message.planId}, ${message.toName}, ${message.toAddress},
          ${JSON.stringify(message.details)}, 'queued', ${at})
        on conflict (business_id, message_key) do nothing`,
  );
  return touched === 1;
}

export const messageById = (db: Db, businessId: string, id: string): Promise<Message | null> =>
  maybeOne(
    db,
    sql`select id, kind, way, invoice_id as "invoiceId", order_id as "orderId", request_id as "requestId", customer_id as "customerId", payment_id as "paymentId", plan_id as "planId",
          to_name as "toName", to_address as "toAddress", details, state, trouble
        from messages where business_id = ${businessId} and id = ${id}`,
  );

/** Notes how handing over went; true unless it was already handed over. */
export async function updateMessage(
  tx: Tx,
  businessId: string,
  id: string,
  result: { state: 'handed-over'; trouble: null } | { state: 'failed'; trouble: string },
  at: Date,
): Promise<boolean> {
  const touched = await run(
    tx,
    sql`update messages set state = ${result.state}, trouble = ${result.trouble},
          handed_over_at = ${result.state === 'handed-over' ? at : null}
        where business_id = ${businessId} and id = ${id} and state in ('queued', 'failed')`,
  );
  return touched === 1;
}

/** Notes what the mail server said later; true the first time it says so. */
export async function updateDelivery(
  tx: Tx,
  businessId: string,
  id: string,
  result: { state: 'delivered' | 'bounced'; trouble: string | null },
): Promise<boolean> {
  const touched = await run(
    tx,
    sql`update messages set state = ${result.state}, trouble = ${result.trouble}
        where business_id = ${businessId} and id = ${id} and state in ('queued', 'handed-over')`,
  );
  return touched === 1;
}

/** Messages that did not arrive, with whom they were for; oldest first. */
export const failedMessages = (
  db: Db,
  businessId: string,
  limit: number,
): Promise<(Message & { invoiceNumber: string; customer: string })[]> =>
  many(
    db,
    sql`select messages.id, messages.kind, messages.way, messages.invoice_id as "invoiceId",
          messages.customer_id as "customerId", payment_id as "paymentId", to_name as "toName", to_address as "toAddress",
          details, state, trouble, invoices.number as "invoiceNumber", customers.name as customer
        from messages
        join invoices on invoices.business_id = messages.business_id and invoices.id = messages.invoice_id
        join customers on customers.business_id = invoices.business_id and customers.id = invoices.customer_id
        where messages.business_id = ${businessId} and state in ('failed', 'bounced')
        order by messages.created_at limit ${limit}`,
  );

/** What waits to be handed over, oldest first. */
export const queuedMessages = (
  db: Db,
  businessId: string,
): Promise<Pick<Message, 'id' | 'kind' | 'invoiceId' | 'toAddress'>[]> =>
  many(
    db,
    sql`select id, kind, invoice_id as "invoiceId", to_address as "toAddress" from messages
        where business_id = ${businessId} and state = 'queued' order by created_at, id`,
  );

/** Whose message an id is; null for none. Outside any business. */
export async function messageHolder(db: Db, id: string): Promise<string | null> {
  const row = await maybeOne<{ holder: string | null }>(db, sql`select message_holder(${id}) as holder`);
  return row?.holder ?? null;
}
