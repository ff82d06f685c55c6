import type { Choice } from '@/core/offer/choice';
import { completeOffer, type Offer } from '@/core/offer/offer';
import type { PrintedOrder } from '@/core/offer/order';
import { TAKEN_STATES } from '@/core/offer/order';
import { WENT_THROUGH } from '@/core/payment/outcome';
import type { KeptCard } from '@/core/plan/shown-card';
import type { Connection, Db, Tx } from './pool';
import { many, maybeOne, one, oneOf, run, type Statement, sql } from './sql';

export type OrderState = 'pending' | 'paid' | 'refused';

/** What somebody ordered through an offer: made when they press the button, paid or refused by what the card says. */
export type Order = {
  readonly id: string;
  readonly offerId: string;
  readonly checkoutKey: string;
  readonly token: string;
  readonly reference: string;
  readonly state: OrderState;
  readonly requestId: string | null;
  readonly customerId: string | null;
  readonly payerEmail: string;
  readonly currency: string;
  readonly totalMinor: bigint;
  readonly codeId: string | null;
  /** The offer as it was quoted. */
  readonly offer: Offer;
  readonly choice: Choice;
  readonly printed: PrintedOrder;
  /** The card that is kept where the payment is repeated, and the network address from which that was agreed to. */
  readonly kept: (KeptCard & { readonly from: string }) | null;
  readonly startedAt: Date;
  readonly settledAt: Date | null;
};

type Kept = Omit<Order, 'offer'> & { definition: Partial<Offer> };

const ORDER = sql`orders.id, orders.offer_id as "offerId", orders.checkout_key as "checkoutKey", orders.token, orders.reference, orders.state,
  orders.request_id as "requestId", orders.customer_id as "customerId", orders.payer_email as "payerEmail", orders.currency,
  orders.total_minor as "totalMinor", orders.code_id as "codeId", orders.definition, orders.choice, orders.printed, orders.kept,
  orders.started_at as "startedAt", orders.settled_at as "settledAt"`;

const whole = ({ definition, ...row }: Kept): Order => ({ ...row, offer: completeOffer(definition) });

const orderWhere = async (db: Connection, where: Statement): Promise<Order | null> => {
  const row = await maybeOne<Kept>(db, sql`select ${ORDER} from orders where ${where}`);
  return row && whole(row);
};

/** Whom an order's own token belongs to. */
export const orderHolder = (db: Connection, token: string): Promise<{ businessId: string; orderId: string } | null> =>
  maybeOne(db, sql`select business_id as "businessId", order_id as "orderId" from order_holder(${token})`);

export const orderById = (db: Db, id: string): Promise<Order | null> =>
  orderWhere(db, sql`business_id = ${db.businessId} and id = ${id}`);

/** The orders by which invoices came to be: each of a later charge of a payment that is repeated. By the invoice's id. */
export async function ordersBehindInvoices(db: Db, invoiceIds: readonly string[]): Promise<Map<string, Order>> {
  if (invoiceIds.length === 0) return new Map();
  const rows = await many<Kept & { invoiceId: string }>(
    db,
    sql`select ${ORDER}, charges.invoice_id as "invoiceId"
        from charges join plans on plans.business_id = charges.business_id and plans.id = charges.plan_id
          join orders on orders.business_id = plans.business_id and orders.id = plans.order_id
        where charges.business_id = ${db.businessId} and charges.invoice_id = any(${[...invoiceIds]})`,
  );
  return new Map(rows.map(({ invoiceId, ...row }) => [invoiceId, whole(row)]));
}

/** Locked until the transaction ends. */
export const lockedOrder = (tx: Tx, id: string): Promise<Order | null> =>
  orderWhere(tx, sql`business_id = ${tx.businessId} and id = ${id} for update`);

/** The order of one checkout, if it came before. */
export const orderByCheckout = (db: Db, offerId: string, key: string): Promise<Order | null> =>
  orderWhere(db, sql`business_id = ${db.businessId} and offer_id = ${offerId} and checkout_key = ${key}`);

export type NewOrder = Omit<Order, 'state' | 'customerId' | 'startedAt' | 'settledAt'> & { readonly revision: number };

/** The card that the processor keeps for an order from now on. */
export const noteKept = (tx: Tx, id: string, kept: NonNullable<Order['kept']>): Promise<number> =>
  run(tx, sql`update orders set kept = ${JSON.stringify(kept)} where business_id = ${tx.businessId} and id = ${id}`);

/** Writes an order down as pending; one of the same checkout that was refused before takes the new content. */
export const insertOrder = (tx: Tx, order: NewOrder): Promise<number> =>
  run(
    tx,
    sql`insert into orders (id, business_id, offer_id, revision, checkout_key, token, reference, state, request_id, payer_email,
          currency, total_minor, code_id, definition, choice, printed, kept, started_at)
        values (${order.id}, ${tx.businessId}, ${order.offerId}, ${order.revision}, ${order.checkoutKey}, ${order.token},
          ${order.reference}, 'pending', ${order.requestId}, ${order.payerEmail}, ${order.currency}, ${order.totalMinor},
          ${order.codeId}, ${JSON.stringify(order.offer)}, ${JSON.stringify(order.choice)}, ${JSON.stringify(order.printed)},
          ${order.kept ? JSON.stringify(order.kept) : null}, ${tx.now})
        on conflict (business_id, offer_id, checkout_key) do update
        set revision = excluded.revision, state = 'pending', payer_email = excluded.payer_email, currency = excluded.currency,
          total_minor = excluded.total_minor, code_id = excluded.code_id, definition = excluded.definition,
          choice = excluded.choice, printed = excluded.printed, kept = excluded.kept, settled_at = null
        where orders.state = 'refused'`,
  );

export const updateOrderPaid = (tx: Tx, id: string, customerId: string): Promise<number> =>
  run(
    tx,
    sql`update orders set state = 'paid', customer_id = ${customerId}, settled_at = ${tx.now}
        where business_id = ${tx.businessId} and id = ${id} and state <> 'paid'`,
  );

export const updateOrderRefused = (tx: Tx, id: string): Promise<number> =>
  run(
    tx,
    sql`update orders set state = 'refused', settled_at = ${tx.now}
        where business_id = ${tx.businessId} and id = ${id} and state = 'pending'`,
  );

/** How many payments of an offer went through or are under way. */
export async function takenOrders(db: Db, offerId: string): Promise<number> {
  const row = await one<{ taken: number }>(
    db,
    sql`select count(*)::int as taken from orders
        where business_id = ${db.businessId} and offer_id = ${offerId} and state in ${oneOf(TAKEN_STATES)}`,
  );
  return row.taken;
}

/** An order as the sheet of its offer lists it, with its payment. */
export type OrderRow = {
  readonly id: string;
  readonly reference: string;
  readonly state: OrderState;
  readonly payer: string;
  readonly email: string;
  readonly currency: string;
  readonly totalMinor: bigint;
  readonly at: Date;
  readonly paymentId: string | null;
  readonly refundedMinor: bigint;
  /** Whether something of the business's own was answered. */
  readonly answered: boolean;
};

/** What of all that paid an order was given back. */
const REFUNDED = sql`coalesce((select sum(all_of.refunded_minor) from payments all_of
  where all_of.business_id = orders.business_id and all_of.order_id = orders.id), 0)::bigint`;

/** An offer's orders, latest first. */
export const orderRows = (db: Db, offerId: string, limit: number): Promise<OrderRow[]> =>
  many(
    db,
    sql`select orders.id, orders.reference, orders.state, orders.printed->'payer'->>'name' as payer, orders.payer_email as email,
          orders.currency, orders.total_minor as "totalMinor", coalesce(orders.settled_at, orders.started_at) as at,
          payments.id as "paymentId", ${REFUNDED} as "refundedMinor",
          coalesce(orders.printed->'answers', '[]') <> '[]' as answered
        from orders left join payments on payments.business_id = orders.business_id and payments.order_id = orders.id
          and payments.state in ${oneOf(WENT_THROUGH)} and payments.beside_id is null
        where orders.business_id = ${db.businessId} and orders.offer_id = ${offerId}
        order by orders.started_at desc, orders.id desc limit ${limit}`,
  );

/** An order that was paid, with what was printed of it; minor units. */
export type AnsweredRow = Pick<OrderRow, 'reference' | 'currency' | 'totalMinor' | 'refundedMinor' | 'at'> & {
  readonly paymentId: string;
  readonly printed: PrintedOrder;
};

/** An offer's orders that were paid, latest first, with all that was answered. */
export const answeredOrders = (db: Db, offerId: string, limit: number): Promise<AnsweredRow[]> =>
  many(
    db,
    sql`select orders.reference, orders.currency,
          orders.total_minor + coalesce((orders.printed->>'tip')::bigint, 0) as "totalMinor", ${REFUNDED} as "refundedMinor", payments.settled_at as at, payments.id as "paymentId", orders.printed
        from orders join payments on payments.business_id = orders.business_id and payments.order_id = orders.id
          and payments.state in ${oneOf(WENT_THROUGH)} and payments.beside_id is null
        where orders.business_id = ${db.businessId} and orders.offer_id = ${offerId} and orders.state = 'paid'
        order by orders.started_at desc, orders.id desc limit ${limit}`,
  );

/** How many cards were refused at an offer since an instant. */
export async function refusedSince(db: Db, offerId: string, since: Date): Promise<number> {
  const row = await one<{ refused: number }>(
    db,
    sql`select count(*)::int as refused from orders
          join payments on payments.business_id = orders.business_id and payments.order_id = orders.id
        where orders.business_id = ${db.businessId} and orders.offer_id = ${offerId} and orders.started_at > ${since}
          and payments.state = 'refused' and payments.beside_id is null`,
  );
  return row.refused;
}
