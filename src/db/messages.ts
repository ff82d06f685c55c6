import type { CheckReason, CheckState } from '@/core/identity/identity';
import type { MessageKind } from '@/core/message/kinds';
import type { Placement } from '@/core/offer/offer';
import type { PaymentMethod } from '@/core/payment/methods';
import type { ProofPurpose } from './mail-proofs';
import type { Connection, Db, Tx } from './pool';
import { many, maybeOne, records, run, sql } from './sql';

/** What a message says beside what its invoice, payment or credit note says. */
export type MessageDetails = {
  /** Words that a person wrote. */
  readonly text?: string;
  /** A reminder's distance from the due date in days. */
  readonly offset?: number;
  /** A reminder's further invoices of the same customer. */
  readonly others?: readonly string[];
  /** Who is asked to approve files. */
  readonly approverId?: string;
  readonly creditId?: string;
  /** How money went back, where not to the card. */
  readonly byHand?: Exclude<PaymentMethod, 'card' | 'debit'>;
  readonly from?: string;
  readonly to?: string;
  readonly subject?: string;
  /** The partner to whom it goes. */
  readonly partnerId?: string;
  /** The charge of a plan that it is about. */
  readonly chargeId?: string;
  /** Who signs in, for what is about their way in; with the network address and the program that it is about. */
  readonly personId?: string;
  /** The invitation, and of which of its mails this is. */
  readonly invitationId?: string;
  readonly nonce?: string;
  readonly address?: string;
  readonly agent?: string;
  /** What was decided of who stands behind the business, and why. */
  readonly outcome?: CheckState;
  readonly reason?: CheckReason;
  /** What its link is for. */
  readonly purpose?: ProofPurpose;
  /** The news that it tells. */
  readonly newsId?: string;
  /** A moment, as ISO 8601 writes it. */
  readonly until?: string;
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
  /** The parcel that it tells of. */
  readonly parcelId: string | null;
  readonly toName: string;
  readonly toAddress: string;
  readonly details: MessageDetails;
  readonly state: 'queued' | 'handed-over' | 'delivered' | 'failed' | 'bounced' | 'dropped';
  readonly trouble: string | null;
};

export type NewMessage = Omit<Message, 'state' | 'trouble'> & { readonly key: string };

/** Queues messages, but for those whose key was queued before. Returns the ids of the new ones. */
export async function insertMessages(tx: Tx, messages: readonly NewMessage[]): Promise<string[]> {
  if (messages.length === 0) return [];
  const rows = await many<{ id: string }>(
    tx,
    sql`insert into messages (id, business_id, kind, way, message_key, invoice_id, order_id, request_id, customer_id, payment_id, plan_id, parcel_id,
          to_name, to_address, details, state, created_at)
        select id, ${tx.businessId}, kind, way, key, "invoiceId", "orderId", "requestId", "customerId", "paymentId", "planId", "parcelId",
          "toName", "toAddress", details, 'queued', ${tx.now}
        from jsonb_to_recordset(${records(messages)}::jsonb) as given (id uuid, kind text, way text, key text, "invoiceId" uuid,
          "orderId" uuid, "requestId" uuid, "customerId" uuid, "paymentId" uuid, "planId" uuid, "parcelId" uuid, "toName" text, "toAddress" text,
          details jsonb)
        on conflict (business_id, message_key) do nothing
        returning id`,
  );
  return rows.map(({ id }) => id);
}

export const messageById = (db: Db, id: string): Promise<Message | null> =>
  maybeOne(
    db,
    sql`select id, kind, way, invoice_id as "invoiceId", order_id as "orderId", request_id as "requestId", customer_id as "customerId", payment_id as "paymentId", plan_id as "planId", parcel_id as "parcelId",
          to_name as "toName", to_address as "toAddress", details, state, trouble
        from messages where business_id = ${db.businessId} and id = ${id}`,
  );

/** Whom a message is about: its customer, or its invoice's, plan's or order's. */
export async function customerOfMessage(db: Db, id: string): Promise<string | null> {
  const row = await maybeOne<{ customerId: string | null }>(
    db,
    sql`select coalesce(messages.customer_id, invoices.customer_id, plans.customer_id, orders.customer_id) as "customerId"
        from messages
        left join invoices on invoices.business_id = messages.business_id and invoices.id = messages.invoice_id
        left join plans on plans.business_id = messages.business_id and plans.id = messages.plan_id
        left join orders on orders.business_id = messages.business_id and orders.id = messages.order_id
        where messages.business_id = ${db.businessId} and messages.id = ${id}`,
  );
  return row?.customerId ?? null;
}

/** Notes how handing over went; true unless it was already handed over. */
export async function updateMessage(
  tx: Tx,
  id: string,
  result: { state: 'handed-over' | 'dropped'; trouble: null } | { state: 'failed'; trouble: string },
): Promise<boolean> {
  const touched = await run(
    tx,
    sql`update messages set state = ${result.state}, trouble = ${result.trouble},
          handed_over_at = ${result.state === 'handed-over' ? tx.now : null}
        where business_id = ${tx.businessId} and id = ${id} and state in ('queued', 'failed')`,
  );
  return touched === 1;
}

/** Notes what the mail server said later; true the first time it says so. */
export async function updateDelivery(
  tx: Tx,
  id: string,
  result: { state: 'delivered' | 'bounced'; trouble: string | null },
): Promise<boolean> {
  const touched = await run(
    tx,
    sql`update messages set state = ${result.state}, trouble = ${result.trouble}
        where business_id = ${tx.businessId} and id = ${id} and state in ('queued', 'handed-over')`,
  );
  return touched === 1;
}

/** What a message that did not arrive was about: an invoice, an order through an offer, a plan, or only a person's own page. */
export type FailedMessage = Pick<
  Message,
  'id' | 'kind' | 'way' | 'toName' | 'toAddress' | 'trouble' | 'invoiceId' | 'planId' | 'customerId'
> & {
  readonly customer: string | null;
  /** Whom it is about, also where it went to the business. */
  readonly aboutId: string | null;
  readonly invoiceNumber: string | null;
  readonly planName: string | null;
  readonly offerId: string | null;
  readonly offerName: string | null;
  readonly placement: Placement | null;
};

/** Notes that somebody has seen to a message that did not arrive; true the first time. */
export async function markSeenTo(tx: Tx, id: string): Promise<boolean> {
  const touched = await run(
    tx,
    sql`update messages set seen_to_at = ${tx.now} where business_id = ${tx.businessId} and id = ${id}
        and state in ('failed', 'bounced') and seen_to_at is null`,
  );
  return touched === 1;
}

/** Messages that did not arrive and that nobody has seen to, with whom they were for and what about; oldest first. */
export const failedMessages = (db: Db, limit: number): Promise<FailedMessage[]> =>
  many(
    db,
    sql`select messages.id, messages.kind, messages.way, messages.to_address as "toAddress", messages.trouble, messages.invoice_id as "invoiceId",
          messages.plan_id as "planId", messages.customer_id as "customerId", messages.to_name as "toName", customers.name as customer, customers.id as "aboutId",
          invoices.number as "invoiceNumber", plans.name as "planName", offers.id as "offerId", offers.name as "offerName", offers.placement
        from messages
        left join invoices on invoices.business_id = messages.business_id and invoices.id = messages.invoice_id
        left join plans on plans.business_id = messages.business_id and plans.id = messages.plan_id
        left join orders on orders.business_id = messages.business_id and orders.id = messages.order_id
        left join requests on requests.business_id = messages.business_id and requests.id = messages.request_id
        left join offers on offers.business_id = messages.business_id and offers.id = coalesce(orders.offer_id, requests.offer_id)
        left join customers on customers.business_id = messages.business_id
          and customers.id = coalesce(messages.customer_id, invoices.customer_id, plans.customer_id, orders.customer_id)
        where messages.business_id = ${db.businessId} and messages.state in ('failed', 'bounced') and messages.seen_to_at is null
        order by messages.created_at limit ${limit}`,
  );

/** When somebody was last reminded of each of these invoices since an instant; those that nobody was reminded of are left out. */
export async function lastReminded(db: Db, invoiceIds: readonly string[], since: Date): Promise<Map<string, Date>> {
  const rows = await many<{ id: string; at: Date }>(
    db,
    sql`select one.id, max(created_at) as at from messages, lateral (
          select invoice_id::text as id union select jsonb_array_elements_text(coalesce(details->'others', '[]'))) as one
        where business_id = ${db.businessId} and kind = 'reminder' and created_at >= ${since} and one.id = any(${[...invoiceIds]}::text[])
        group by one.id`,
  );
  return new Map(rows.map(({ id, at }) => [id, at]));
}

/** When customers were last asked for a late part of a plan or told of its refused charge (by plan), or asked for another card (by customer), since an instant. */
export async function lastAsked(
  db: Db,
  of: { readonly planIds: readonly string[]; readonly customerIds: readonly string[] },
  since: Date,
): Promise<Map<string, Date>> {
  const rows = await many<{ id: string; at: Date }>(
    db,
    sql`select coalesce(plan_id, customer_id) as id, max(created_at) as at from messages
        where business_id = ${db.businessId} and created_at >= ${since}
          and kind in ('charge-refused', 'part-due', 'card-asked', 'own-page') and (
          kind in ('charge-refused', 'part-due') and plan_id = any(${[...of.planIds]}::uuid[])
          or kind in ('card-asked', 'own-page') and plan_id is null and customer_id = any(${[...of.customerIds]}::uuid[]))
        group by 1`,
  );
  return new Map(rows.map(({ id, at }) => [id, at]));
}

/** What waits to be handed over, oldest first. */
export const queuedMessages = (db: Db): Promise<Pick<Message, 'id' | 'kind' | 'invoiceId' | 'toAddress'>[]> =>
  many(
    db,
    sql`select id, kind, invoice_id as "invoiceId", to_address as "toAddress" from messages
        where business_id = ${db.businessId} and state = 'queued' order by created_at, id`,
  );

/** Whose message an id from before the upgrade to keys by business is; null for none. Outside any business. */
export async function earlierMessageHolder(db: Connection, id: string): Promise<string | null> {
  const row = await maybeOne<{ holder: string | null }>(db, sql`select business_of(${id}) as holder`);
  return row?.holder ?? null;
}

/** When messages were queued, by their keys. */
export const whenQueued = async (db: Db, keys: readonly string[]): Promise<ReadonlyMap<string, Date>> =>
  new Map(
    (
      await many<{ key: string; at: Date }>(
        db,
        sql`select message_key as key, created_at as at from messages
            where business_id = ${db.businessId} and message_key = any(${[...keys]}::text[])`,
      )
    ).map(({ key, at }) => [key, at]),
  );
