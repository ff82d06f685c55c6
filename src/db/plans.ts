import type { CalendarDate } from '@/core/dates/calendar-date';
import type { Pauses } from '@/core/invoice/recurring';
import { completePaper } from '@/core/paper/paper';
import type { Progress } from '@/core/plan/ahead';
import type { Decisions } from '@/core/plan/decisions';
import type { PlanTerms } from '@/core/plan/plan';
import type { PlanState } from '@/core/plan/state';
import { RUNNING_STATES } from '@/core/plan/state';
import type { Connection, Db, Tx } from './pool';
import { likePattern, many, maybeOne, NONE, one, oneOf, records, run, type Statement, sql } from './sql';

/** A billing plan as kept; amounts in minor units of its currency. */
export type Plan = Progress & {
  readonly id: string;
  readonly customerId: string;
  readonly number: string;
  readonly state: PlanState;
  readonly terms: PlanTerms;
  readonly currency: string;
  readonly memo: string;
  readonly reference: string;
  readonly linkToken: string;
  readonly pauses: Pauses;
  /** What a person decided about single dates. */
  readonly decisions: Decisions;
  /** Where it was cancelled for the end of the period that is paid for: the day on which it ends. */
  readonly endsOn: CalendarDate | null;
  /** Its cards in the order in which they are tried; none for all of the customer's in theirs. */
  readonly cardIds: readonly string[];
  /** A change that waits until the customer agrees to it. */
  readonly proposed: { readonly terms: PlanTerms; readonly byName: string } | null;
  /** The day on which it started; null before. */
  readonly startsOn: CalendarDate | null;
  /** Where parts of a balance are charged: the invoice over the whole. */
  readonly invoiceId: string | null;
  readonly orderId: string | null;
  readonly sentAt: Date | null;
  /** When whoever has the link and does not follow it is reminded. */
  readonly remindAt: Date | null;
  readonly lapsesOn: CalendarDate | null;
  readonly revision: number;
  readonly byId: string | null;
  readonly createdAt: Date;
  readonly endedAt: Date | null;
};

const PLAN = sql`plans.id, plans.customer_id as "customerId", plans.number, plans.state, plans.terms, plans.currency, plans.memo,
  plans.reference, plans.link_token as "linkToken", plans.pauses, plans.decisions, plans.ends_on as "endsOn", plans.card_ids as "cardIds", plans.proposed, plans.starts_on as "startsOn", plans.invoice_id as "invoiceId",
  plans.order_id as "orderId", plans.charged_minor as "chargedMinor", plans.charged_count as "chargedCount",
  plans.planned_minor as "plannedMinor", plans.planned_count as "plannedCount", plans.next_on as "nextOn",
  plans.refused_count as "refusedCount", plans.written_to as "writtenTo", plans.sent_at as "sentAt", plans.remind_at as "remindAt", plans.lapses_on as "lapsesOn", plans.revision,
  plans.by_id as "byId", plans.created_at as "createdAt", plans.ended_at as "endedAt"`;

const complete = <Row extends Plan>(row: Row): Row => ({
  ...row,
  terms: { ...row.terms, paper: completePaper(row.terms.paper) },
  ...(row.proposed
    ? {
        proposed: { ...row.proposed, terms: { ...row.proposed.terms, paper: completePaper(row.proposed.terms.paper) } },
      }
    : {}),
});

/** Plans by id; those that there are not are left out. */
export async function plansByIds(db: Db, ids: readonly string[], lock = false): Promise<Plan[]> {
  const rows = await many<Plan>(
    db,
    sql`select ${PLAN} from plans where business_id = ${db.businessId} and id = any(${[...ids]}) order by id${lock ? sql` for update` : NONE}`,
  );
  return rows.map(complete);
}

export const planById = async (db: Db, id: string, lock = false): Promise<Plan | null> =>
  (await plansByIds(db, [id], lock))[0] ?? null;

export const insertPlan = (
  tx: Tx,
  plan: Pick<
    Plan,
    'id' | 'customerId' | 'number' | 'terms' | 'currency' | 'memo' | 'reference' | 'linkToken' | 'orderId' | 'byId'
  >,
): Promise<number> =>
  run(
    tx,
    sql`insert into plans (id, business_id, customer_id, number, state, terms, name, kind, pay, currency, memo, reference, link_token,
          order_id, by_id, revision, created_at, changed_at)
        values (${plan.id}, ${tx.businessId}, ${plan.customerId}, ${plan.number}, 'draft', ${JSON.stringify(plan.terms)},
          ${plan.terms.name}, ${plan.terms.kind}, ${plan.terms.pay}, ${plan.currency}, ${plan.memo}, ${plan.reference},
          ${plan.linkToken}, ${plan.orderId}, ${plan.byId}, 1, ${tx.now}, ${tx.now})`,
  );

/** Writes a plan as it is now. */
export const updatePlan = (tx: Tx, plan: Plan): Promise<number> =>
  run(
    tx,
    sql`update plans set customer_id = ${plan.customerId}, state = ${plan.state}, terms = ${JSON.stringify(plan.terms)},
          name = ${plan.terms.name}, kind = ${plan.terms.kind}, pay = ${plan.terms.pay}, currency = ${plan.currency},
          memo = ${plan.memo}, reference = ${plan.reference}, pauses = ${JSON.stringify(plan.pauses)},
          decisions = ${JSON.stringify(plan.decisions)}, ends_on = ${plan.endsOn}, card_ids = ${[...plan.cardIds]},
          proposed = ${plan.proposed ? JSON.stringify(plan.proposed) : null},
          starts_on = ${plan.startsOn}, invoice_id = ${plan.invoiceId}, charged_minor = ${plan.chargedMinor},
          charged_count = ${plan.chargedCount}, planned_minor = ${plan.plannedMinor}, planned_count = ${plan.plannedCount},
          next_on = ${plan.nextOn}, refused_count = ${plan.refusedCount}, written_to = ${plan.writtenTo}, sent_at = ${plan.sentAt}, remind_at = ${plan.remindAt}, lapses_on = ${plan.lapsesOn},
          revision = ${plan.revision}, ended_at = ${plan.endedAt}, changed_at = ${tx.now}
        where business_id = ${tx.businessId} and id = ${plan.id}`,
  );

/** Writes down how far plans have come: what was charged, what is planned, what comes next. */
export const updateProgress = (
  tx: Tx,
  plans: readonly (Pick<Plan, 'id' | 'state' | 'currency' | 'endedAt'> & Progress)[],
): Promise<number> => {
  // Not the plans whole: their terms are many times as large as what is written.
  const given = plans.map((plan) => ({
    id: plan.id,
    state: plan.state,
    currency: plan.currency,
    chargedMinor: plan.chargedMinor,
    chargedCount: plan.chargedCount,
    plannedMinor: plan.plannedMinor,
    plannedCount: plan.plannedCount,
    nextOn: plan.nextOn,
    refusedCount: plan.refusedCount,
    writtenTo: plan.writtenTo,
    endedAt: plan.endedAt,
  }));
  return run(
    tx,
    sql`update plans set state = given.state, currency = given.currency, charged_minor = "chargedMinor", charged_count = "chargedCount",
          planned_minor = "plannedMinor", planned_count = "plannedCount", next_on = "nextOn", refused_count = "refusedCount",
          written_to = "writtenTo", ended_at = "endedAt", changed_at = ${tx.now}
        from jsonb_to_recordset(${records(given)}::jsonb) as given (id uuid, state text, currency text, "chargedMinor" bigint,
          "chargedCount" int, "plannedMinor" bigint, "plannedCount" int, "nextOn" date, "refusedCount" int, "writtenTo" date, "endedAt" timestamptz)
        where business_id = ${tx.businessId} and plans.id = given.id`,
  );
};

export const deletePlan = (tx: Tx, id: string): Promise<number> =>
  run(tx, sql`delete from plans where business_id = ${tx.businessId} and id = ${id} and state = 'draft'`);

export const planHolder = (db: Connection, token: string): Promise<{ businessId: string; planId: string } | null> =>
  maybeOne(db, sql`select business_id as "businessId", plan_id as "planId" from plan_holder(${token})`);

/** What a customer's plans are, latest first; drafts are left out. */
export const plansOfCustomer = async (db: Db, customerId: string): Promise<Plan[]> =>
  (
    await many<Plan>(
      db,
      sql`select ${PLAN} from plans where business_id = ${db.businessId} and customer_id = ${customerId} and state <> 'draft' order by id desc limit 100`,
    )
  ).map(complete);

export type PlanRow = {
  readonly id: string;
  readonly number: string;
  readonly name: string;
  readonly kind: PlanTerms['kind'];
  readonly state: PlanState;
  readonly customer: string;
  readonly currency: string;
  readonly chargedMinor: bigint;
  readonly chargedCount: number;
  readonly plannedMinor: bigint | null;
  readonly plannedCount: number | null;
  readonly nextOn: CalendarDate | null;
  readonly refusedCount: number;
};

/** What plans are looked for by; empty words and states mean all. */
export type PlanAsk = { readonly words: string; readonly states: readonly PlanState[]; readonly refusedOnly: boolean };

/** Whether a plan's name, number, reference, customer or one of the customer's cards has the words. */
export const planMatches = (words: string): Statement =>
  sql`(lower(plans.name || ' ' || plans.number || ' ' || plans.reference || ' ' || customers.name) like ${likePattern(words)}
    or exists (select 1 from cards where cards.business_id = plans.business_id and cards.customer_id = plans.customer_id
      and cards.state <> 'removed' and cards.last4 = ${words}))`;

/** Plans whose customer, name, number or card matches, those with trouble first, then by the next date; at most `limit`. */
export const planRows = (db: Db, ask: PlanAsk, limit: number): Promise<PlanRow[]> => {
  return many(
    db,
    sql`select plans.id, plans.number, plans.name, plans.kind, plans.state, customers.name as customer, plans.currency,
          plans.charged_minor as "chargedMinor", plans.charged_count as "chargedCount", plans.planned_minor as "plannedMinor",
          plans.planned_count as "plannedCount", plans.next_on as "nextOn", plans.refused_count as "refusedCount"
        from plans join customers on customers.business_id = plans.business_id and customers.id = plans.customer_id
        where plans.business_id = ${db.businessId}
          and (${ask.states.length === 0} or plans.state = any(${[...ask.states]}))
          and (not ${ask.refusedOnly} or plans.refused_count > 0)
          and ${ask.words ? planMatches(ask.words) : sql`true`}
        order by array_position(array['active', 'paused', 'waiting', 'draft', 'finished', 'cancelled'], plans.state),
          (plans.refused_count = 0), plans.next_on nulls last, plans.id
        limit ${limit}`,
  );
};

/** Plans, newest first, after a place in the list. */
export async function plansByNewest(
  db: Db,
  limit: number,
  after: { readonly key: string; readonly id: string } | null,
): Promise<Plan[]> {
  const rows = await many<Plan>(
    db,
    sql`select ${PLAN} from plans where plans.business_id = ${db.businessId}
          ${after ? sql`and (plans.created_at, plans.id) < (${after.key}::timestamptz, ${after.id}::uuid)` : NONE}
        order by plans.created_at desc, plans.id desc limit ${limit}`,
  );
  return rows.map(complete);
}

/** How many plans there are of each state, and with a refused charge. */
export const planCounts = (db: Db): Promise<{ state: PlanState; count: number; refused: number }[]> =>
  many(
    db,
    sql`select state, count(*)::int as count, count(*) filter (where refused_count > 0)::int as refused from plans
        where business_id = ${db.businessId} group by state`,
  );

/** A running plan with dates beyond those that are written down, and whose it is. */
export type PlanBeyond = Plan & { readonly customer: string; readonly email: string };

/** Plans that run, match the words (all without any) and are not written down up to a day, as far as they go at all. */
export async function plansBeyond(db: Db, words: string, until: CalendarDate): Promise<PlanBeyond[]> {
  const rows = await many<PlanBeyond>(
    db,
    sql`select ${PLAN}, customers.name as customer, customers.email
        from plans join customers on customers.business_id = plans.business_id and customers.id = plans.customer_id
        where plans.business_id = ${db.businessId} and plans.state = 'active' and plans.written_to < ${until}
          and ${words ? planMatches(words) : sql`true`}
        order by plans.id`,
  );
  return rows.map(complete);
}

/** Waiting plans whose holder is to be reminded by an instant and was not yet, locked. */
export async function claimWaiting(tx: Tx, at: Date, limit: number): Promise<Plan[]> {
  const rows = await many<Plan>(
    tx,
    sql`select ${PLAN} from plans where business_id = ${tx.businessId} and state = 'waiting' and remind_at <= ${at} and reminded_at is null
      order by remind_at, id limit ${limit} for update skip locked`,
  );
  return rows.map(complete);
}

/** Waiting plans whose time is over, locked. */
export async function claimLapsed(tx: Tx, today: CalendarDate, limit: number): Promise<Plan[]> {
  const rows = await many<Plan>(
    tx,
    sql`select ${PLAN} from plans where business_id = ${tx.businessId} and state = 'waiting' and lapses_on < ${today}
      order by lapses_on, id limit ${limit} for update skip locked`,
  );
  return rows.map(complete);
}

/** Plans whose last day has come, locked. */
export async function claimEnding(tx: Tx, today: CalendarDate, limit: number): Promise<Plan[]> {
  const rows = await many<Plan>(
    tx,
    sql`select ${PLAN} from plans where business_id = ${tx.businessId} and ends_on <= ${today}
      order by ends_on, id limit ${limit} for update skip locked`,
  );
  return rows.map(complete);
}

export const markReminded = (tx: Tx, id: string): Promise<number> =>
  run(tx, sql`update plans set reminded_at = ${tx.now} where business_id = ${tx.businessId} and id = ${id}`);

/** Members at the ends of months: how many plans started and ended in each month from a day on. */
export const planMovements = (db: Db, from: CalendarDate): Promise<{ month: string; gained: number; lost: number }[]> =>
  many(
    db,
    sql`select month, sum(gained)::int as gained, sum(lost)::int as lost from (
          select to_char(starts_on, 'YYYY-MM') as month, 1 as gained, 0 as lost from plans
            where business_id = ${db.businessId} and kind = 'membership' and starts_on >= ${from}
          union all
          select to_char(ended_at, 'YYYY-MM'), 0, 1 from plans
            where business_id = ${db.businessId} and kind = 'membership' and ended_at >= ${from}::date and starts_on is not null
        ) as moves group by month order by month`,
  );

export async function livingMembers(db: Db): Promise<number> {
  const row = await one<{ count: number }>(
    db,
    sql`select count(*)::int as count from plans where business_id = ${db.businessId} and kind = 'membership' and state in ${oneOf(RUNNING_STATES)}`,
  );
  return row.count;
}

/** Whether the plans of these charges want receipts mailed, by charge. */
export async function receiptsWanted(db: Db, chargeIds: readonly string[]): Promise<Map<string, boolean>> {
  if (chargeIds.length === 0) return new Map();
  const rows = await many<{ chargeId: string; wanted: boolean }>(
    db,
    sql`select charges.id as "chargeId", coalesce((plans.terms->>'receipts')::boolean, false) as wanted
        from plans join charges on charges.business_id = plans.business_id and charges.plan_id = plans.id
        where charges.business_id = ${db.businessId} and charges.id = any(${[...chargeIds]})`,
  );
  return new Map(rows.map(({ chargeId, wanted }) => [chargeId, wanted]));
}
