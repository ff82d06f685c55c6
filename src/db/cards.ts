import type { CalendarDate } from '@/core/dates/calendar-date';
import type { RefusalReason } from '@/core/payment/outcome';
import type { Db, Tx } from './pool';
import { many, maybeOne, run, sql } from './sql';

/** A card on file, without its number; `expires` is the last month in which it is good, `YYYY-MM`. */
export type CardOnFile = {
  readonly id: string;
  readonly customerId: string;
  /** Under which the processor keeps it. */
  readonly keptId: string;
  readonly scheme: string;
  readonly last4: string;
  readonly expires: string;
  readonly fingerprint: string;
  readonly position: number;
  readonly state: 'good' | 'refusing' | 'removed';
  /** Why it is of no use any more. */
  readonly trouble: RefusalReason | null;
  readonly addedAt: Date;
  readonly addedBy: string;
};

const CARD = sql`id, customer_id as "customerId", kept_id as "keptId", scheme, last4, expires, fingerprint, position, state, trouble,
  added_at as "addedAt", added_by as "addedBy"`;

/** Customers' cards in the order in which they are tried; those taken away are left out. */
export const cardsOfCustomers = (db: Db, customerIds: readonly string[]): Promise<CardOnFile[]> =>
  many(
    db,
    sql`select ${CARD} from cards where business_id = ${db.businessId} and customer_id = any(${[...customerIds]}) and state <> 'removed'
      order by customer_id, position, id`,
  );

/** The same of one customer. */
export const cardsOf = (db: Db, customerId: string): Promise<CardOnFile[]> => cardsOfCustomers(db, [customerId]);

export const cardById = (db: Db, id: string): Promise<CardOnFile | null> =>
  maybeOne(db, sql`select ${CARD} from cards where business_id = ${db.businessId} and id = ${id}`);

/** Whether a card that the processor keeps is on anybody's file. */
export async function isOnFile(db: Db, keptId: string): Promise<boolean> {
  const row = await maybeOne(
    db,
    sql`select 1 from cards where business_id = ${db.businessId} and kept_id = ${keptId} and state <> 'removed'`,
  );
  return row !== null;
}

/** Under which ids the processor should be keeping cards for this business. */
export async function keptIds(db: Db): Promise<string[]> {
  const rows = await many<{ keptId: string }>(
    db,
    sql`select kept_id as "keptId" from cards where business_id = ${db.businessId} and state <> 'removed'`,
  );
  return rows.map(({ keptId }) => keptId);
}

/** Adds a card behind the customer's others. */
export const insertCard = (tx: Tx, card: Omit<CardOnFile, 'position' | 'state' | 'trouble'>): Promise<number> =>
  run(
    tx,
    sql`insert into cards (id, business_id, customer_id, kept_id, scheme, last4, expires, fingerprint, position, state, added_at, added_by)
        values (${card.id}, ${tx.businessId}, ${card.customerId}, ${card.keptId}, ${card.scheme}, ${card.last4}, ${card.expires},
          ${card.fingerprint}, (select coalesce(max(position), 0) + 1 from cards where business_id = ${tx.businessId}
            and customer_id = ${card.customerId}), 'good', ${card.addedAt}, ${card.addedBy})`,
  );

/** Notes what a card is now: its number and expiry as the scheme replaced them, whether it is of use. */
export const updateCard = (
  tx: Tx,
  { id, keptId, last4, expires, fingerprint, position, state, trouble }: CardOnFile,
): Promise<number> =>
  run(
    tx,
    sql`update cards set kept_id = ${keptId}, last4 = ${last4}, expires = ${expires}, fingerprint = ${fingerprint}, position = ${position},
          state = ${state}, trouble = ${trouble}
        where business_id = ${tx.businessId} and id = ${id}`,
  );

/** Good cards of living plans that are over after a month (`YYYY-MM`) at the latest, and whose holders were not asked for that yet. */
export const cardsToAskFor = (tx: Tx, month: string, limit: number): Promise<CardOnFile[]> =>
  many(
    tx,
    sql`select ${CARD} from cards where business_id = ${tx.businessId} and state = 'good' and expires <= ${month} and asked_for <> expires
        and exists (select 1 from plans where plans.business_id = cards.business_id and plans.customer_id = cards.customer_id
          and plans.state = 'active' and plans.pay = 'card')
      order by expires, id limit ${limit} for update skip locked`,
  );

export const markAsked = (tx: Tx, id: string): Promise<number> =>
  run(tx, sql`update cards set asked_for = expires where business_id = ${tx.businessId} and id = ${id}`);

/** A plan whose next charge would find no card that is good by then. */
export type FailingCard = {
  readonly planId: string;
  readonly plan: string;
  readonly customerId: string;
  readonly customer: string;
  readonly email: string;
  readonly on: CalendarDate;
  /** The card that is good for longest; null without any. */
  readonly card: Pick<CardOnFile, 'scheme' | 'last4' | 'expires'> | null;
};

/** Plans whose next charge lies within 45 days and would fail for want of a good card, the earliest first. */
export const failingCards = (db: Db, today: CalendarDate, limit: number): Promise<FailingCard[]> =>
  many(
    db,
    sql`select plans.id as "planId", plans.name as plan, customers.id as "customerId", customers.name as customer, customers.email, plans.next_on as "on",
          (select jsonb_build_object('scheme', scheme, 'last4', last4, 'expires', expires) from cards
            where cards.business_id = plans.business_id and cards.customer_id = plans.customer_id and cards.state <> 'removed'
            order by expires desc limit 1) as card
        from plans join customers on customers.business_id = plans.business_id and customers.id = plans.customer_id
        where plans.business_id = ${db.businessId} and plans.state = 'active' and plans.pay = 'card'
          and plans.next_on between ${today} and ${today}::date + 45
          and not exists (select 1 from cards where cards.business_id = plans.business_id and cards.customer_id = plans.customer_id
            and cards.state = 'good' and cards.expires >= to_char(plans.next_on, 'YYYY-MM'))
        order by plans.next_on, plans.id limit ${limit}`,
  );
