import type { CalendarDate } from '@/core/dates/calendar-date';
import type { RefusalReason } from '@/core/payment/outcome';
import type { ChangedCharge, Charge } from '@/core/plan/charge';
import { type ChargeState, COUNTED_STATES, OPEN_STATES, PAID_STATES, RUNNING_STATES } from '@/core/plan/state';
import { planMatches } from './plans';
import type { Db, Tx } from './pool';
import { joined, many, NONE, one, oneOf, records, run, type Statement, sql } from './sql';

const CHARGE = sql`charges.id, charges.plan_id as "planId", charges.customer_id as "customerId", charges.part, charges.nominal,
  charges.charged_on as "chargedOn", charges.amount_minor as "amountMinor", charges.currency, charges.reasons, charges.state,
  charges.note, charges.notice_on as "noticeOn", charges.act_at as "actAt", charges.round, charges.attempts, charges.tried, charges.card_id as "cardId",
  charges.last_reason as "lastReason", charges.invoice_id as "invoiceId", charges.payment_id as "paymentId",
  charges.settled_at as "settledAt", charges.carried_at as "carriedAt", charges.carried_by as "carriedBy"`;

export const chargesByIds = (db: Db, ids: readonly string[], lock = false): Promise<Charge[]> =>
  many(
    db,
    sql`select ${CHARGE} from charges where business_id = ${db.businessId} and id = any(${[...ids]}) order by id${lock ? sql` for update` : NONE}`,
  );

export const chargeById = async (db: Db, id: string, lock = false): Promise<Charge | null> =>
  (await chargesByIds(db, [id], lock))[0] ?? null;

/** What is known of the dates of plans that are written down: enough to plan on from them. */
export type KnownCharge = Pick<Charge, 'planId' | 'part' | 'nominal' | 'chargedOn' | 'amountMinor' | 'state'>;

export const knownCharges = (db: Db, planIds: readonly string[]): Promise<KnownCharge[]> =>
  many(
    db,
    sql`select plan_id as "planId", part, nominal, charged_on as "chargedOn", amount_minor as "amountMinor", state from charges
        where business_id = ${db.businessId} and plan_id = any(${[...planIds]})`,
  );

/** A plan's charges by their day. */
export const chargesOfPlan = (db: Db, planId: string, limit = 1100): Promise<Charge[]> =>
  many(
    db,
    sql`select ${CHARGE} from charges where business_id = ${db.businessId} and plan_id = ${planId} order by charged_on, part, nominal limit ${limit}`,
  );

/** Those of a customer that are still to come or were refused, by their day. */
export const chargesAhead = (db: Db, customerId: string, limit: number): Promise<Charge[]> =>
  many(
    db,
    sql`select ${CHARGE} from charges where business_id = ${db.businessId} and customer_id = ${customerId} and state = any(${[...OPEN_STATES]})
      order by charged_on, id limit ${limit}`,
  );

/** Charges of invoices that nobody has paid yet, in order, locked. */
export const openChargesOfInvoices = (tx: Tx, invoiceIds: readonly string[]): Promise<Charge[]> =>
  many(
    tx,
    sql`select ${CHARGE} from charges where business_id = ${tx.businessId} and invoice_id = any(${[...invoiceIds]}) and state = any(${[...OPEN_STATES]})
      order by charged_on, part, nominal, id for update`,
  );

/** What is charged at once to a card that a customer gives now: all that was refused and is still wanted, by currency; minor units. */
export const retriedSums = (db: Db, customerId: string): Promise<{ currency: string; minor: bigint }[]> =>
  many(
    db,
    sql`select charges.currency, sum(charges.amount_minor)::bigint as minor
        from charges join plans on plans.business_id = charges.business_id and plans.id = charges.plan_id
        where charges.business_id = ${db.businessId} and charges.customer_id = ${customerId} and charges.state = 'refused'
          and plans.pay = 'card'
          and (plans.state = 'active' or plans.state = 'paused' and plans.pauses @> '[{"why": "refused", "to": "9999-12-31"}]')
        group by charges.currency order by charges.currency`,
  );

/** The charges of an invoice that money by hand has paid, the latest first, locked. */
export const chargesPaidByHand = (tx: Tx, invoiceId: string, paymentId: string | null): Promise<Charge[]> =>
  many(
    tx,
    sql`select ${CHARGE} from charges where business_id = ${tx.businessId} and invoice_id = ${invoiceId} and state = any(${[...PAID_STATES]})
        and (payment_id is null or payment_id = ${paymentId}) order by settled_at desc, charged_on desc, id for update`,
  );

/** What the paid charges of each of these invoices come to, in minor units. */
export async function paidByCharges(db: Db, invoiceIds: readonly string[]): Promise<Map<string, bigint>> {
  const rows = await many<{ invoiceId: string; minor: bigint }>(
    db,
    sql`select charges.invoice_id as "invoiceId",
          sum(charges.amount_minor - coalesce(payments.refunded_minor - payments.tip_minor, 0))::bigint as minor
        from charges left join payments on payments.business_id = charges.business_id and payments.charge_id = charges.id
          and payments.id = charges.payment_id and payments.refunded_minor > payments.tip_minor
        where charges.business_id = ${db.businessId} and charges.invoice_id = any(${[...invoiceIds]})
          and charges.state = any(${[...PAID_STATES]})
        group by charges.invoice_id`,
  );
  return new Map(rows.map(({ invoiceId, minor }) => [invoiceId, minor]));
}

export type NewCharge = Pick<
  Charge,
  | 'id'
  | 'planId'
  | 'customerId'
  | 'part'
  | 'nominal'
  | 'chargedOn'
  | 'amountMinor'
  | 'currency'
  | 'reasons'
  | 'state'
  | 'note'
  | 'noticeOn'
  | 'actAt'
  | 'invoiceId'
>;

/** Writes charges down; a date that is there already stays as it is. */
export async function insertCharges(tx: Tx, charges: readonly NewCharge[]): Promise<number> {
  if (charges.length === 0) return 0;
  return run(
    tx,
    sql`insert into charges (id, business_id, plan_id, customer_id, part, nominal, charged_on, amount_minor, currency, reasons, state,
          note, notice_on, act_at, invoice_id)
        select id, ${tx.businessId}, "planId", "customerId", part, nominal, "chargedOn", "amountMinor", currency, reasons, state,
          note, "noticeOn", "actAt", "invoiceId"
        from jsonb_to_recordset(${records(charges)}::jsonb) as given (id uuid, "planId" uuid, "customerId" uuid, part text,
          nominal date, "chargedOn" date, "amountMinor" bigint, currency text, reasons jsonb, state text, note jsonb,
          "noticeOn" date, "actAt" timestamptz, "invoiceId" uuid)
        on conflict (business_id, plan_id, part, nominal) do nothing`,
  );
}

/** Writes charges as they are now: as `after` made them, and no other way. */
export async function updateCharges(tx: Tx, charges: readonly ChangedCharge[]): Promise<number> {
  if (charges.length === 0) return 0;
  return run(
    tx,
    sql`update charges set charged_on = "chargedOn", notice_on = "noticeOn", amount_minor = "amountMinor", state = given.state,
          note = given.note, act_at = "actAt", round = given.round, attempts = given.attempts, tried = given.tried,
          card_id = "cardId", last_reason = "lastReason", invoice_id = "invoiceId", payment_id = "paymentId",
          settled_at = "settledAt"
        from jsonb_to_recordset(${records(charges)}::jsonb) as given (id uuid, "chargedOn" date, "noticeOn" date,
          "amountMinor" bigint, state text, note jsonb, "actAt" timestamptz, round smallint, attempts smallint, tried uuid[],
          "cardId" uuid, "lastReason" text, "invoiceId" uuid, "paymentId" uuid, "settledAt" timestamptz)
        where business_id = ${tx.businessId} and charges.id = given.id`,
  );
}

/** Takes away what is still to come of a plan from a nominal date on (all of it without one): it is planned anew or over. */
export const deleteUpcoming = (tx: Tx, planId: string): Promise<number> =>
  run(tx, sql`delete from charges where business_id = ${tx.businessId} and plan_id = ${planId} and state = 'upcoming'`);

/** Charges whose time has come, in order of date, locked; others who ask at the same time get others. */
export const claimCharges = (tx: Tx, limit: number): Promise<Charge[]> =>
  many(
    tx,
    sql`select ${CHARGE} from charges where business_id = ${tx.businessId} and act_at <= ${tx.now}
      order by act_at, id limit ${limit} for update skip locked`,
  );

/** All of these plans' upcoming charges whose time has come, locked, in order of date. */
export const dueOfPlans = (tx: Tx, planIds: readonly string[]): Promise<Charge[]> =>
  many(
    tx,
    sql`select ${CHARGE} from charges where business_id = ${tx.businessId} and plan_id = any(${[...planIds]}) and state = 'upcoming'
        and act_at <= ${tx.now}
      order by charged_on, id for update`,
  );

/** Plans of which charges were missed and wait for somebody to decide, oldest first: the first of each, and what they come to. */
export const missedCharges = (db: Db, limit: number): Promise<MissedRow[]> =>
  many(
    db,
    sql`select plans.id as "planId", plans.name, customers.id as "customerId", customers.name as customer, charges.currency, count(*)::int as count,
          sum(charges.amount_minor)::bigint as minor, min(charges.charged_on) as "from"
        from charges join plans on plans.business_id = charges.business_id and plans.id = charges.plan_id
          join customers on customers.business_id = charges.business_id and customers.id = charges.customer_id
        where charges.business_id = ${db.businessId} and charges.state = 'upcoming' and charges.note->>'code' = 'missed'
          and charges.act_at is null
        group by plans.business_id, plans.id, plans.name, customers.id, customers.name, charges.currency
        order by min(charges.charged_on), plans.id limit ${limit}`,
  );

/** A plan with charges that were missed; minor units. */
export type MissedRow = {
  readonly planId: string;
  readonly name: string;
  readonly customerId: string;
  readonly customer: string;
  readonly currency: string;
  readonly count: number;
  readonly minor: bigint;
  readonly from: CalendarDate;
};

/** Charges of which the customer is to be told by a day and was not yet, locked. */
export const claimNotices = (
  tx: Tx,
  today: CalendarDate,
  limit: number,
): Promise<{ id: string; planId: string; customerId: string }[]> =>
  many(
    tx,
    sql`select id, plan_id as "planId", customer_id as "customerId" from charges
        where business_id = ${tx.businessId} and state = 'upcoming' and noticed_at is null and notice_on <= ${today}
        order by notice_on, id limit ${limit} for update skip locked`,
  );

export const markNoticed = (tx: Tx, id: string): Promise<number> =>
  run(tx, sql`update charges set noticed_at = ${tx.now} where business_id = ${tx.businessId} and id = ${id}`);

/** A charge in the list over all plans. */
export type UpcomingRow = Charge & {
  readonly plan: string;
  readonly planNumber: string;
  readonly planKind: 'membership' | 'instalments';
  readonly planState: string;
  readonly customer: string;
  readonly email: string;
  readonly pay: 'card' | 'invoice';
  readonly reference: string;
};

/** What charges are looked for by; empty words and lists mean all. Both ends of the span are included. */
export type UpcomingAsk = {
  readonly words: string;
  readonly states: readonly ChargeState[];
  readonly from: CalendarDate | null;
  readonly to: CalendarDate | null;
  readonly notCarried: boolean;
};

/** The columns of such a row, and where they come from. */
const UPCOMING = sql`${CHARGE}, plans.name as plan, plans.number as "planNumber", plans.kind as "planKind",
  plans.state as "planState", customers.name as customer, customers.email, plans.pay, plans.reference`;
const FROM_CHARGES = sql`from charges
  join plans on plans.business_id = charges.business_id and plans.id = charges.plan_id
  join customers on customers.business_id = charges.business_id and customers.id = charges.customer_id`;

/** What of the rows is asked for; words look into plans and customers, which then have to be joined. */
const narrowed = (businessId: string, ask: UpcomingAsk): Statement =>
  joined(
    [
      sql`charges.business_id = ${businessId}`,
      ask.from ? sql`charges.charged_on >= ${ask.from}` : NONE,
      ask.to ? sql`charges.charged_on <= ${ask.to}` : NONE,
      ask.states.length > 0 ? sql`charges.state = any(${[...ask.states]})` : NONE,
      ask.notCarried ? sql`charges.state = any(${[...PAID_STATES]}) and charges.carried_at is null` : NONE,
      ask.words ? planMatches(ask.words) : NONE,
    ].filter((one) => one !== NONE),
    sql` and `,
  );

/** A page of charges by date after a place in the list. */
export const upcomingPage = (
  db: Db,
  ask: UpcomingAsk,
  after: { on: CalendarDate; id: string } | null,
  limit: number,
): Promise<UpcomingRow[]> =>
  many(
    db,
    sql`select ${UPCOMING} ${FROM_CHARGES}
        where ${narrowed(db.businessId, ask)}
          ${after ? sql`and (charges.charged_on, charges.id) > (${after.on}, ${after.id}::uuid)` : NONE}
        order by charges.charged_on, charges.id limit ${Math.floor(limit)}`,
  );

/** Counts and sums of charges by day and currency. */
export const upcomingDays = (
  db: Db,
  ask: UpcomingAsk,
): Promise<{ on: CalendarDate; currency: string; state: ChargeState; count: number; minor: bigint }[]> =>
  many(
    db,
    sql`select charges.charged_on as "on", charges.currency, charges.state, count(*)::int as count, sum(charges.amount_minor)::bigint as minor
        ${ask.words ? FROM_CHARGES : sql`from charges`}
        where ${narrowed(db.businessId, ask)}
        group by 1, 2, 3 order by 1, 2, 3`,
  );

/** Marks charges as carried over into other books; those marked before stay as they are. Returns how many are new. */
export const markCarried = (tx: Tx, ids: readonly string[], by: string): Promise<number> =>
  run(
    tx,
    sql`update charges set carried_at = ${tx.now}, carried_by = ${by}
        where business_id = ${tx.businessId} and id = any(${[...ids]}) and state = any(${[...PAID_STATES]}) and carried_at is null`,
  );

/** Refused charges that wait for somebody, the longest waiting first; with what happens next. */
export const refusedCharges = (db: Db, limit: number): Promise<UpcomingRow[]> =>
  many(
    db,
    sql`select ${UPCOMING}
      ${FROM_CHARGES} where charges.business_id = ${db.businessId} and charges.state = 'refused'
      order by (charges.act_at is null) desc, charges.charged_on, charges.id limit ${limit}`,
  );

/** Parts of balances that are asked for and not paid, of plans that run, and that nobody has looked at since an instant; marked as looked at now. */
export const claimOpenParts = (
  tx: Tx,
  since: Date,
  limit: number,
): Promise<{ id: string; planId: string; customerId: string; chargedOn: CalendarDate }[]> =>
  many(
    tx,
    sql`update charges set noticed_at = ${tx.now} where business_id = ${tx.businessId} and id in (
          select charges.id from charges join plans on plans.business_id = charges.business_id and plans.id = charges.plan_id
          where charges.business_id = ${tx.businessId} and charges.state = 'billed' and plans.invoice_id is not null
            and plans.state = 'active' and (charges.noticed_at is null or charges.noticed_at < ${since})
          order by charges.charged_on, charges.id limit ${limit} for update of charges skip locked)
        returning id, plan_id as "planId", customer_id as "customerId", charged_on as "chargedOn"`,
  );

/** Parts of balances that were asked for before a day and are not paid, oldest first; a plan that has ended asks for nothing, its invoice does. */
export const openParts = (db: Db, before: CalendarDate, limit: number): Promise<UpcomingRow[]> =>
  many(
    db,
    sql`select ${UPCOMING}
      ${FROM_CHARGES} where charges.business_id = ${db.businessId} and charges.state = 'billed' and charges.charged_on < ${before}
        and plans.invoice_id is not null and plans.state in ${oneOf(RUNNING_STATES)}
      order by charges.charged_on, charges.id limit ${limit}`,
  );

/** What was planned, is open, came in, was refused and recovered in a month; minor units. */
export type ChargeMonth = {
  /** `YYYY-MM` */
  readonly month: string;
  readonly kind: 'membership' | 'instalments';
  readonly currency: string;
  /** By the day of the charge. */
  readonly expectedMinor: bigint;
  readonly openMinor: bigint;
  readonly due: number;
  readonly refused: number;
  readonly recovered: number;
  /** By the day on which it was received, in the business's zone. */
  readonly receivedMinor: bigint;
};

/** What plans brought and will bring by month and kind from a day on, as far as it is written down. */
export const chargeMonths = (db: Db, from: CalendarDate, zone: string): Promise<ChargeMonth[]> =>
  many(
    db,
    sql`with named as (
          select charges.*, plans.kind from charges join plans on plans.business_id = charges.business_id and plans.id = charges.plan_id
          where charges.business_id = ${db.businessId}
        ), figures as (
          select to_char(charged_on, 'YYYY-MM') as month, kind, currency,
            case when state = any(${[...COUNTED_STATES]}) then amount_minor else 0 end as expected,
            case when state = any(${[...OPEN_STATES]}) then amount_minor else 0 end as open,
            0 as received, state = any(${[...PAID_STATES, 'refused']}) as due, last_reason is not null as refused,
            last_reason is not null and state = any(${[...PAID_STATES]}) as recovered
          from named where charged_on >= ${from}
          union all
          select to_char(settled_at at time zone ${zone}, 'YYYY-MM'), kind, currency, 0, 0, amount_minor, false, false, false
          from named where state = any(${[...PAID_STATES]}) and (settled_at at time zone ${zone})::date >= ${from}
        )
        select month, kind, currency, sum(expected)::bigint as "expectedMinor", sum(open)::bigint as "openMinor",
          sum(received)::bigint as "receivedMinor", count(*) filter (where due)::int as due,
          count(*) filter (where refused)::int as refused, count(*) filter (where recovered)::int as recovered
        from figures group by 1, 2, 3 order by 1, 2, 3`,
  );

/** The attempts at a plan's charges, latest first. */
export const attemptsOfPlan = (
  db: Db,
  planId: string,
): Promise<
  {
    chargeId: string;
    at: Date;
    state: string;
    reason: RefusalReason | null;
    card: string | null;
    amountMinor: bigint;
    paymentId: string;
  }[]
> =>
  many(
    db,
    sql`select payments.charge_id as "chargeId", payments.started_at as at, payments.state, payments.reason,
          payments.card_scheme || ' ·' || payments.card_last4 as card, payments.amount_minor as "amountMinor", payments.id as "paymentId"
        from payments join charges on charges.business_id = payments.business_id and charges.id = payments.charge_id
        where payments.business_id = ${db.businessId} and charges.plan_id = ${planId}
        order by payments.started_at desc, payments.id desc limit 300`,
  );

/** What memberships will bring in by day within a span; parts of a balance are due by their invoice. */
export const plannedByDay = (
  db: Db,
  from: CalendarDate,
  to: CalendarDate,
): Promise<{ on: CalendarDate; currency: string; count: number; minor: bigint }[]> =>
  many(
    db,
    sql`select charged_on as "on", currency, count(*)::int as count, sum(amount_minor)::bigint as minor from charges
        where business_id = ${db.businessId} and charged_on between ${from} and ${to} and state = 'upcoming' and invoice_id is null
        group by 1, 2 order by 1, 2`,
  );

/** The last day on which a charge is written down that is still to come. */
export const lastWrittenDay = async (db: Db): Promise<CalendarDate | null> =>
  (
    await one<{ on: CalendarDate | null }>(
      db,
      sql`select max(charged_on) as "on" from charges where business_id = ${db.businessId} and state = 'upcoming'`,
    )
  ).on;
