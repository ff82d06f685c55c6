import type { CalendarDate } from '@/core/dates/calendar-date';
import type { RefusalReason } from '@/core/payment/outcome';
import type { ChargeState } from '@/core/plan/state';
import type { Db, Tx } from './pool';
import { many, maybeOne, one, run, sql } from './sql';

/** Why a charge is on its day or for its sum, as kept: sums are plain numbers. */
export type KeptReason = {
  readonly kind: string;
  readonly moved?: string;
  readonly wanted?: number;
  readonly minor?: number;
};

/** One charge of a plan; amounts in minor units. */
export type Charge = {
  readonly id: string;
  readonly planId: string;
  readonly customerId: string;
  readonly part: 'deposit' | 'period';
  readonly nominal: CalendarDate;
  readonly chargedOn: CalendarDate;
  readonly amountMinor: bigint;
  readonly currency: string;
  readonly reasons: readonly KeptReason[];
  readonly state: ChargeState;
  /** Why it was skipped, or how it was paid otherwise. */
  readonly words: string;
  /** When the worker deals with it next. */
  readonly actAt: Date | null;
  readonly round: number;
  readonly attempts: number;
  readonly tried: readonly string[];
  readonly cardId: string | null;
  readonly lastReason: RefusalReason | null;
  readonly invoiceId: string | null;
  readonly paymentId: string | null;
  readonly settledAt: Date | null;
  readonly carriedAt: Date | null;
  readonly carriedBy: string | null;
};

const CHARGE = `charges.id, charges.plan_id as "planId", charges.customer_id as "customerId", charges.part, charges.nominal,
  charges.charged_on as "chargedOn", charges.amount_minor as "amountMinor", charges.currency, charges.reasons, charges.state,
  charges.words, charges.act_at as "actAt", charges.round, charges.attempts, charges.tried, charges.card_id as "cardId",
  charges.last_reason as "lastReason", charges.invoice_id as "invoiceId", charges.payment_id as "paymentId",
  charges.settled_at as "settledAt", charges.carried_at as "carriedAt", charges.carried_by as "carriedBy"`;

export const chargeById = (db: Db, businessId: string, id: string, lock = false): Promise<Charge | null> =>
  maybeOne(db, {
    text: `select ${CHARGE} from charges where business_id = $1 and id = $2${lock ? ' for update' : ''}`,
    values: [businessId, id],
  });

/** A plan's charges by their day. */
export const chargesOfPlan = (db: Db, businessId: string, planId: string, limit = 1100): Promise<Charge[]> =>
  many(db, {
    text: `select ${CHARGE} from charges where business_id = $1 and plan_id = $2 order by charged_on, part, nominal limit $3`,
    values: [businessId, planId, limit],
  });

/** Those of a customer that are still to come or were refused, by their day. */
export const chargesAhead = (db: Db, businessId: string, customerId: string, limit: number): Promise<Charge[]> =>
  many(db, {
    text: `select ${CHARGE} from charges where business_id = $1 and customer_id = $2 and state in ('upcoming', 'charging', 'refused', 'billed')
      order by charged_on, id limit $3`,
    values: [businessId, customerId, limit],
  });

/** Charges of an invoice that nobody has paid yet, in order. */
export const openChargesOfInvoice = (tx: Tx, businessId: string, invoiceId: string): Promise<Charge[]> =>
  many(tx, {
    text: `select ${CHARGE} from charges where business_id = $1 and invoice_id = $2 and state in ('upcoming', 'charging', 'refused', 'billed')
      order by charged_on, part, nominal for update`,
    values: [businessId, invoiceId],
  });

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
  | 'words'
  | 'actAt'
  | 'invoiceId'
>;

/** Writes charges down; a date that is there already stays as it is. */
export async function insertCharges(tx: Tx, businessId: string, charges: readonly NewCharge[]): Promise<number> {
  if (charges.length === 0) return 0;
  const column = <T>(of: (charge: NewCharge) => T) => charges.map(of);
  return run(
    tx,
    sql`insert into charges (id, business_id, plan_id, customer_id, part, nominal, charged_on, amount_minor, currency, reasons, state,
          words, act_at, invoice_id)
        select id, ${businessId}, plan_id, customer_id, part, nominal, charged_on, amount_minor, currency, reasons, state, words, act_at, invoice_id
        from unnest(${column(({ id }) => id)}::uuid[], ${column(({ planId }) => planId)}::uuid[],
          ${column(({ customerId }) => customerId)}::uuid[], ${column(({ part }) => part)}::text[],
          ${column(({ nominal }) => nominal)}::date[], ${column(({ chargedOn }) => chargedOn)}::date[],
          ${column(({ amountMinor }) => String(amountMinor))}::bigint[], ${column(({ currency }) => currency)}::text[],
          ${column(({ reasons }) => JSON.stringify(reasons))}::jsonb[], ${column(({ state }) => state)}::text[],
          ${column(({ words }) => words)}::text[], ${column(({ actAt }) => actAt)}::timestamptz[],
          ${column(({ invoiceId }) => invoiceId)}::uuid[])
          as given (id, plan_id, customer_id, part, nominal, charged_on, amount_minor, currency, reasons, state, words, act_at, invoice_id)
        on conflict (business_id, plan_id, part, nominal) do nothing`,
  );
}

/** Writes a charge as it is now. */
export const updateCharge = (tx: Tx, businessId: string, charge: Charge): Promise<number> =>
  run(
    tx,
    sql`update charges set charged_on = ${charge.chargedOn}, amount_minor = ${charge.amountMinor}, state = ${charge.state},
          words = ${charge.words}, act_at = ${charge.actAt}, round = ${charge.round}, attempts = ${charge.attempts},
          tried = ${[...charge.tried]}, card_id = ${charge.cardId}, last_reason = ${charge.lastReason},
          reasons = ${JSON.stringify(charge.reasons)},
          invoice_id = ${charge.invoiceId}, payment_id = ${charge.paymentId}, settled_at = ${charge.settledAt}
        where business_id = ${businessId} and id = ${charge.id}`,
  );

/** Takes away what is still to come of a plan from a nominal date on (all of it without one): it is planned anew or over. */
export const deleteUpcoming = (tx: Tx, businessId: string, planId: string): Promise<number> =>
  run(tx, sql`delete from charges where business_id = ${businessId} and plan_id = ${planId} and state = 'upcoming'`);

/** Charges whose time has come, in order of date, locked; others who ask at the same time get others. */
export const claimCharges = (tx: Tx, businessId: string, now: Date, limit: number): Promise<Charge[]> =>
  many(tx, {
    text: `select ${CHARGE} from charges where business_id = $1 and act_at <= $2
      order by act_at, id limit $3 for update skip locked`,
    values: [businessId, now, limit],
  });

/** Charges of living plans that lie before a day and of which nobody was told, with the days of notice that the plan wants. */
export const claimNotices = (
  tx: Tx,
  businessId: string,
  today: CalendarDate,
  limit: number,
): Promise<{ id: string; planId: string; customerId: string }[]> =>
  many(
    tx,
    sql`select charges.id, charges.plan_id as "planId", charges.customer_id as "customerId"
        from charges join plans on plans.business_id = charges.business_id and plans.id = charges.plan_id
        where charges.business_id = ${businessId} and charges.state = 'upcoming' and charges.noticed_at is null
          and charges.charged_on between ${today} and ${today}::date + 60 and plans.state = 'active'
          and (plans.terms->>'noticeDays') is not null and charges.amount_minor > 0
          and charges.charged_on <= ${today}::date + (plans.terms->>'noticeDays')::int
        order by charges.charged_on, charges.id limit ${limit} for update of charges skip locked`,
  );

export const markNoticed = (tx: Tx, businessId: string, id: string, at: Date): Promise<number> =>
  run(tx, sql`update charges set noticed_at = ${at} where business_id = ${businessId} and id = ${id}`);

/** The sums of a plan's charges: made, still to come, refused; the next day on which one is to be made. */
export const planTotals = (
  db: Db,
  businessId: string,
  planId: string,
): Promise<{
  chargedMinor: bigint;
  chargedCount: number;
  refused: number;
  open: number;
  plannedMinor: bigint;
  plannedCount: number;
  nextOn: CalendarDate | null;
  lastNominal: CalendarDate | null;
}> =>
  one(
    db,
    sql`select coalesce(sum(amount_minor) filter (where state = 'charged'), 0)::bigint as "chargedMinor",
          count(*) filter (where state = 'charged')::int as "chargedCount",
          count(*) filter (where state = 'refused')::int as refused,
          count(*) filter (where state in ('upcoming', 'charging', 'refused', 'billed'))::int as open,
          coalesce(sum(amount_minor) filter (where state <> 'skipped'), 0)::bigint as "plannedMinor",
          count(*) filter (where state <> 'skipped')::int as "plannedCount",
          min(charged_on) filter (where state = 'upcoming') as "nextOn", max(nominal) filter (where part = 'period') as "lastNominal"
        from charges where business_id = ${businessId} and plan_id = ${planId}`,
  );

/** A charge in the list over all plans. */
export type UpcomingRow = Charge & {
  readonly plan: string;
  readonly planNumber: string;
  readonly planKind: 'membership' | 'instalments';
  readonly planState: string;
  readonly customer: string;
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

const FROM_CHARGES = `from charges
  join plans on plans.business_id = charges.business_id and plans.id = charges.plan_id
  join customers on customers.business_id = charges.business_id and customers.id = charges.customer_id`;

const NARROWED = `charges.business_id = $1 and ($2::date is null or charges.charged_on >= $2) and ($3::date is null or charges.charged_on <= $3)
  and (cardinality($4::text[]) = 0 or charges.state = any($4)) and (not $5 or (charges.state = 'charged' and charges.carried_at is null))
  and ($6 = '' or lower(plans.name || ' ' || plans.number || ' ' || plans.reference || ' ' || customers.name) like '%' || $7 || '%'
    or exists (select 1 from cards where cards.business_id = charges.business_id and cards.customer_id = charges.customer_id
      and cards.state <> 'removed' and cards.last4 = $6))`;

const narrowed = (businessId: string, ask: UpcomingAsk): unknown[] => [
  businessId,
  ask.from,
  ask.to,
  [...ask.states],
  ask.notCarried,
  ask.words,
  ask.words.toLowerCase().replace(/[\\%_]/g, '\\$&'),
];

/** A page of charges by date after a place in the list. */
export const upcomingPage = (
  db: Db,
  businessId: string,
  ask: UpcomingAsk,
  after: { on: CalendarDate; id: string } | null,
  limit: number,
): Promise<UpcomingRow[]> =>
  many(db, {
    text: `select ${CHARGE}, plans.name as plan, plans.number as "planNumber", plans.kind as "planKind", plans.state as "planState",
        customers.name as customer, plans.pay, plans.reference
      ${FROM_CHARGES}
      where ${NARROWED} and ($8::date is null or (charges.charged_on, charges.id) > ($8, $9::uuid))
      order by charges.charged_on, charges.id limit ${Math.floor(limit)}`,
    values: [...narrowed(businessId, ask), after?.on ?? null, after?.id ?? null],
  });

/** Counts and sums of charges by day and currency. */
export const upcomingDays = (
  db: Db,
  businessId: string,
  ask: UpcomingAsk,
): Promise<{ on: CalendarDate; currency: string; state: ChargeState; count: number; minor: bigint }[]> =>
  many(db, {
    text: `select charges.charged_on as "on", charges.currency, charges.state, count(*)::int as count, sum(charges.amount_minor)::bigint as minor
      ${ask.words ? FROM_CHARGES : 'from charges'}
      where ${ask.words ? NARROWED : NARROWED.slice(0, NARROWED.indexOf("and ($6 = ''"))}
      group by 1, 2, 3 order by 1, 2, 3`,
    values: ask.words ? narrowed(businessId, ask) : narrowed(businessId, ask).slice(0, 5),
  });

/** Marks charges as carried over into other books; those marked before stay as they are. Returns how many are new. */
export const markCarried = (
  tx: Tx,
  businessId: string,
  ids: readonly string[],
  by: string,
  at: Date,
): Promise<number> =>
  run(
    tx,
    sql`update charges set carried_at = ${at}, carried_by = ${by}
        where business_id = ${businessId} and id = any(${[...ids]}) and state = 'charged' and carried_at is null`,
  );

/** Refused charges that wait for somebody, the longest waiting first; with what happens next. */
export const refusedCharges = (db: Db, businessId: string, limit: number): Promise<UpcomingRow[]> =>
  many(db, {
    text: `select ${CHARGE}, plans.name as plan, plans.number as "planNumber", plans.kind as "planKind", plans.state as "planState",
        customers.name as customer, plans.pay, plans.reference
      ${FROM_CHARGES} where charges.business_id = $1 and charges.state = 'refused'
      order by (charges.act_at is null) desc, charges.charged_on, charges.id limit $2`,
    values: [businessId, limit],
  });

/** Parts of balances that are asked for and not paid, of plans that run, and that nobody has looked at since an instant; marked as looked at now. */
export const claimOpenParts = (
  tx: Tx,
  businessId: string,
  since: Date,
  limit: number,
  at: Date,
): Promise<{ id: string; planId: string; customerId: string; chargedOn: CalendarDate }[]> =>
  many(
    tx,
    sql`update charges set noticed_at = ${at} where business_id = ${businessId} and id in (
          select charges.id from charges join plans on plans.business_id = charges.business_id and plans.id = charges.plan_id
          where charges.business_id = ${businessId} and charges.state = 'billed' and plans.invoice_id is not null
            and plans.state = 'active' and (charges.noticed_at is null or charges.noticed_at < ${since})
          order by charges.charged_on, charges.id limit ${limit} for update of charges skip locked)
        returning id, plan_id as "planId", customer_id as "customerId", charged_on as "chargedOn"`,
  );

/** Parts of balances that were asked for before a day and are not paid, oldest first; a plan that has ended asks for nothing, its invoice does. */
export const openParts = (db: Db, businessId: string, before: CalendarDate, limit: number): Promise<UpcomingRow[]> =>
  many(db, {
    text: `select ${CHARGE}, plans.name as plan, plans.number as "planNumber", plans.kind as "planKind", plans.state as "planState",
        customers.name as customer, plans.pay, plans.reference
      ${FROM_CHARGES} where charges.business_id = $1 and charges.state = 'billed' and charges.charged_on < $2
        and plans.invoice_id is not null and plans.state in ('active', 'paused')
      order by charges.charged_on, charges.id limit $3`,
    values: [businessId, before, limit],
  });

/** What was planned, received, refused and recovered by month and kind from a day on; a month is `YYYY-MM`. */
export const chargeMonths = (
  db: Db,
  businessId: string,
  from: CalendarDate,
): Promise<
  {
    month: string;
    kind: 'membership' | 'instalments';
    currency: string;
    expectedMinor: bigint;
    receivedMinor: bigint;
    due: number;
    refused: number;
    recovered: number;
  }[]
> =>
  many(
    db,
    sql`select to_char(charges.charged_on, 'YYYY-MM') as month, plans.kind, charges.currency,
          coalesce(sum(charges.amount_minor) filter (where charges.state <> 'skipped'), 0)::bigint as "expectedMinor",
          coalesce(sum(charges.amount_minor) filter (where charges.state = 'charged'), 0)::bigint as "receivedMinor",
          count(*) filter (where charges.state in ('charged', 'refused'))::int as due,
          count(*) filter (where charges.last_reason is not null)::int as refused,
          count(*) filter (where charges.last_reason is not null and charges.state = 'charged')::int as recovered
        from charges join plans on plans.business_id = charges.business_id and plans.id = charges.plan_id
        where charges.business_id = ${businessId} and charges.charged_on >= ${from}
        group by 1, 2, 3 order by 1, 2, 3`,
  );

/** The attempts at a plan's charges, latest first. */
export const attemptsOfPlan = (
  db: Db,
  businessId: string,
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
        where payments.business_id = ${businessId} and charges.plan_id = ${planId}
        order by payments.started_at desc, payments.id desc limit 300`,
  );

/** What memberships will bring in by day within a span; parts of a balance are due by their invoice. */
export const plannedByDay = (
  db: Db,
  businessId: string,
  from: CalendarDate,
  to: CalendarDate,
): Promise<{ on: CalendarDate; currency: string; count: number; minor: bigint }[]> =>
  many(
    db,
    sql`select charged_on as "on", currency, count(*)::int as count, sum(amount_minor)::bigint as minor from charges
        where business_id = ${businessId} and charged_on between ${from} and ${to} and state = 'upcoming' and invoice_id is null
        group by 1, 2 order by 1, 2`,
  );
