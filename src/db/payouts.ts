import type { CalendarDate } from '@/core/dates/calendar-date';
import type { Held, PayoutState } from '@/core/payout/payouts';
import type { PayoutPolicy, ProcessorTerms } from '@/core/payout/policy';
import type { Db, Tx } from './pool';
import { many, maybeOne, NONE, one, records, run, sql } from './sql';

/** How a business is paid out, and up to which day that was looked at. */
export type PayoutSettings = {
  readonly policy: PayoutPolicy;
  readonly terms: ProcessorTerms;
  readonly madeTo: CalendarDate | null;
};

export const payoutSettings = (db: Db): Promise<PayoutSettings> =>
  one(
    db,
    sql`select payouts as policy, processor_terms as terms, payouts_made_to as "madeTo" from businesses where business_id = ${db.businessId}`,
  );

export const updatePayoutPolicy = (tx: Tx, policy: PayoutPolicy): Promise<number> =>
  run(tx, sql`update businesses set payouts = ${JSON.stringify(policy)} where business_id = ${tx.businessId}`);

export const updateLookedAt = (tx: Tx, day: CalendarDate, terms: ProcessorTerms): Promise<number> =>
  run(
    tx,
    sql`update businesses set payouts_made_to = ${day}, processor_terms = ${JSON.stringify(terms)} where business_id = ${tx.businessId}`,
  );

/** What a day brought a payee (the business's id, or a partner's) in one currency and is in no payout's reckoning yet; minor units. */
export type OpenDay = {
  readonly payee: string;
  readonly currency: string;
  readonly day: CalendarDate;
  readonly net: bigint;
};

/**
 * All that was not counted yet, up to a closed day, in order of days. What partners get is off what the business gets; a payout that
 * came back and was given up is the partner's alone.
 */
export const openDays = (db: Db, upTo: CalendarDate): Promise<OpenDay[]> =>
  many(
    db,
    sql`with moved as (
          select partner_id, m.currency, (at at time zone zone)::date as day, kind = 'came-back' as own, sum(minor) as minor
          from partner_movements m join businesses using (business_id)
          where m.business_id = ${db.businessId} and (at at time zone zone)::date <= ${upTo}
          group by 1, 2, 3, 4
        ), nets as (
          select ${db.businessId}::uuid as payee, sum->>'currency' as currency, day, (sum->>'netMinor')::bigint as minor
          from day_batches, jsonb_array_elements(sums) as sum where business_id = ${db.businessId} and day <= ${upTo}
          union all
          select ${db.businessId}, currency, day, -minor from moved where not own
          union all
          select partner_id, currency, day, minor from moved
        )
        select payee, currency, day, sum(minor)::bigint as net from nets
        where not exists (
          select from payout_days d where d.business_id = ${db.businessId} and d.payee = nets.payee and d.currency = nets.currency and d.day = nets.day)
        group by payee, currency, day order by day, payee, currency`,
  );

/** Where a payee stands since their last payout in a currency. */
export async function payoutState(db: Db, payee: string, currency: string): Promise<PayoutState> {
  const rows = await many<{
    day: CalendarDate;
    net: bigint;
    paid: boolean;
    held: bigint;
    until: CalendarDate | null;
    released: boolean;
  }>(
    db,
    sql`select day, net_minor as net, payout_id is not null as paid, held_minor as held, held_until as until,
          released_on is not null as released
        from payout_days where business_id = ${db.businessId} and payee = ${payee} and currency = ${currency}
          and (payout_id is null or (held_minor > 0 and release_payout_id is null)) order by day`,
  );
  const counted = rows.filter(({ paid }) => !paid);
  const sum = (list: readonly bigint[]): bigint => list.reduce((all, minor) => all + minor, 0n);
  const reserved = sum(counted.map(({ held }) => held));
  const released = sum(rows.flatMap((row) => (row.released ? row.held : [])));
  return {
    days: counted.map(({ day }) => day),
    reserved,
    released,
    carried: sum(counted.map(({ net }) => net)) - reserved + released,
    held: rows.flatMap((row): Held[] =>
      row.held > 0n && !row.released && row.until ? [{ day: row.day, minor: row.held, until: row.until }] : [],
    ),
  };
}

/** Writes down what a payout date counted, and what it released. */
export async function keepStep(
  tx: Tx,
  { payee, currency }: Pick<OpenDay, 'payee' | 'currency'>,
  on: CalendarDate,
  step: {
    readonly counted: readonly Pick<OpenDay, 'day' | 'net'>[];
    readonly reserved: readonly Held[];
    readonly released: readonly Held[];
  },
): Promise<void> {
  const rows = step.counted.map(({ day, net }) => {
    const held = step.reserved.find((one) => one.day === day);
    return { day, net, held: held?.minor ?? 0n, until: held?.until ?? null };
  });
  if (rows.length > 0)
    await run(
      tx,
      sql`insert into payout_days (business_id, payee, currency, day, net_minor, held_minor, held_until)
          select ${tx.businessId}, ${payee}, ${currency}, day, net, held, until
          from jsonb_to_recordset(${records(rows)}::jsonb) as given (day date, net bigint, held bigint, until date)`,
    );
  if (step.released.length > 0)
    await run(
      tx,
      sql`update payout_days set released_on = ${on} where business_id = ${tx.businessId} and payee = ${payee} and currency = ${currency}
            and day = any(${step.released.map(({ day }) => day)}::date[])`,
    );
}

/** How a payout stands: decided, with the bank, there, come back, or given up because a partner got it by hand. */
export type PayoutStage = 'made' | 'sent' | 'arrived' | 'returned' | 'given-up';

/** A payout; minor units. `partnerId` is null for the business's own. */
export type PayoutRow = {
  readonly id: string;
  readonly partnerId: string | null;
  /** The partner's name; empty for the business's own. */
  readonly partner: string;
  readonly number: number;
  readonly currency: string;
  readonly madeOn: CalendarDate;
  readonly amountMinor: bigint;
  readonly carriedMinor: bigint;
  readonly reservedMinor: bigint;
  readonly releasedMinor: bigint;
  readonly state: PayoutStage;
  readonly accountId: string;
  readonly accountNumber: string;
  readonly accountHolder: string;
  readonly attempt: number;
  readonly sentAt: Date | null;
  readonly settledOn: CalendarDate | null;
  readonly reason: string;
};

const PAYOUT = sql`payouts.id, payouts.partner_id as "partnerId", coalesce(partners.name, '') as partner, payouts.number, payouts.currency,
    made_on as "madeOn", amount_minor as "amountMinor", carried_minor as "carriedMinor", reserved_minor as "reservedMinor",
    released_minor as "releasedMinor", payouts.state, account_id as "accountId", bank_accounts.number as "accountNumber",
    bank_accounts.holder as "accountHolder", attempt, sent_at as "sentAt", settled_on as "settledOn", payouts.reason
  from payouts join bank_accounts on bank_accounts.business_id = payouts.business_id and bank_accounts.id = payouts.account_id
    left join partners on partners.business_id = payouts.business_id and partners.id = payouts.partner_id`;

/** Writes a payout down, with the days and the releases that no other has. */
export async function insertPayout(
  tx: Tx,
  payout: Pick<
    PayoutRow,
    | 'id'
    | 'partnerId'
    | 'number'
    | 'currency'
    | 'madeOn'
    | 'amountMinor'
    | 'carriedMinor'
    | 'reservedMinor'
    | 'releasedMinor'
    | 'accountId'
  >,
): Promise<void> {
  const payee = payout.partnerId ?? tx.businessId;
  await run(
    tx,
    sql`insert into payouts (id, business_id, partner_id, number, currency, made_on, amount_minor, carried_minor, reserved_minor,
          released_minor, state, account_id, act_at)
        values (${payout.id}, ${tx.businessId}, ${payout.partnerId}, ${payout.number}, ${payout.currency}, ${payout.madeOn},
          ${payout.amountMinor}, ${payout.carriedMinor}, ${payout.reservedMinor}, ${payout.releasedMinor}, 'made', ${payout.accountId},
          ${tx.now})`,
  );
  await run(
    tx,
    sql`update payout_days set payout_id = coalesce(payout_id, ${payout.id}),
          release_payout_id = case when released_on is not null then coalesce(release_payout_id, ${payout.id}) end
        where business_id = ${tx.businessId} and payee = ${payee} and currency = ${payout.currency}
          and (payout_id is null or (released_on is not null and release_payout_id is null))`,
  );
}

export const payoutById = (db: Db, id: string): Promise<PayoutRow | null> =>
  maybeOne(db, sql`select ${PAYOUT} where payouts.business_id = ${db.businessId} and payouts.id = ${id}`);

/** The same, held until the transaction ends. */
export const lockedPayout = (tx: Tx, id: string): Promise<PayoutRow | null> =>
  maybeOne(
    tx,
    sql`select ${PAYOUT} where payouts.business_id = ${tx.businessId} and payouts.id = ${id} for update of payouts`,
  );

/** Payouts, latest first, after a number. @param partnerId of one partner; null for the business's own; undefined for all */
export const payoutRows = (
  db: Db,
  limit: number,
  before: number | null = null,
  partnerId?: string | null,
): Promise<PayoutRow[]> =>
  many(
    db,
    sql`select ${PAYOUT} where payouts.business_id = ${db.businessId} ${before === null ? NONE : sql`and payouts.number < ${before}`}
          ${partnerId === undefined ? NONE : partnerId === null ? sql`and payouts.partner_id is null` : sql`and payouts.partner_id = ${partnerId}`}
        order by payouts.number desc limit ${limit}`,
  );

/** Payouts that came back and were not sent again, oldest first. */
export const returnedPayouts = (db: Db, limit: number): Promise<PayoutRow[]> =>
  many(
    db,
    sql`select ${PAYOUT} where payouts.business_id = ${db.businessId} and payouts.state = 'returned' order by payouts.number limit ${limit}`,
  );

/** Of them those of a payee and currency. */
export const returnedTo = (db: Db, payee: string, currency: string): Promise<PayoutRow[]> =>
  many(
    db,
    sql`select ${PAYOUT} where payouts.business_id = ${db.businessId} and payouts.payee = ${payee} and payouts.currency = ${currency}
          and payouts.state = 'returned' order by payouts.number`,
  );

/** The partners' payouts of a day in a currency. */
export const partnersPayouts = (db: Db, on: CalendarDate, currency: string): Promise<PayoutRow[]> =>
  many(
    db,
    sql`select ${PAYOUT} where payouts.business_id = ${db.businessId} and made_on = ${on} and payouts.currency = ${currency}
          and payouts.partner_id is not null order by partners.name, payouts.number`,
  );

/** Payouts that are to be handed to the bank, or that it is to be asked about, by now. */
export const payoutsToAct = (db: Db): Promise<PayoutRow[]> =>
  many(
    db,
    sql`select ${PAYOUT} where payouts.business_id = ${db.businessId} and payouts.act_at <= ${db.now} order by payouts.number limit 200`,
  );

/** Moves a payout on; nothing where it does not stand as it was when that was decided. */
export const updatePayout = (
  tx: Tx,
  was: Pick<PayoutRow, 'id' | 'state' | 'attempt'>,
  is: {
    readonly state: PayoutStage;
    readonly actAt: Date | null;
    readonly sentAt?: Date | null;
    readonly settledOn?: CalendarDate | null;
    readonly reason?: string;
    readonly attempt?: number;
    readonly accountId?: string;
  },
): Promise<number> =>
  run(
    tx,
    sql`update payouts set state = ${is.state}, act_at = ${is.actAt}, attempt = ${is.attempt ?? was.attempt},
          sent_at = ${is.sentAt === undefined ? sql`sent_at` : sql`${is.sentAt}`},
          settled_on = ${is.settledOn === undefined ? sql`settled_on` : sql`${is.settledOn}`},
          reason = ${is.reason === undefined ? sql`reason` : sql`${is.reason}`},
          account_id = ${is.accountId === undefined ? sql`account_id` : sql`${is.accountId}`}
        where business_id = ${tx.businessId} and id = ${was.id} and state = ${was.state} and attempt = ${was.attempt}`,
  );

/** A day of a payout; minor units. */
export type PayoutDayRow = {
  readonly day: CalendarDate;
  readonly netMinor: bigint;
  readonly heldMinor: bigint;
  readonly heldUntil: CalendarDate | null;
};

export const payoutDays = (db: Db, payoutId: string): Promise<PayoutDayRow[]> =>
  many(
    db,
    sql`select day, net_minor as "netMinor", held_minor as "heldMinor", held_until as "heldUntil" from payout_days
        where business_id = ${db.businessId} and payout_id = ${payoutId} order by day`,
  );

/** A payee's days that are in no payout yet, or of which something is held back or released and in none yet. */
export const waitingDays = (
  db: Db,
  payee: string,
  currency: string,
): Promise<(PayoutDayRow & { readonly isPaid: boolean; readonly isReleased: boolean })[]> =>
  many(
    db,
    sql`select day, net_minor as "netMinor", held_minor as "heldMinor", held_until as "heldUntil", payout_id is not null as "isPaid",
          released_on is not null as "isReleased"
        from payout_days where business_id = ${db.businessId} and payee = ${payee} and currency = ${currency}
          and (payout_id is null or (held_minor > 0 and release_payout_id is null)) order by day`,
  );

/** The days of which a payout released what was held back, with that. */
export const releasesOf = (db: Db, payoutId: string): Promise<PayoutDayRow[]> =>
  many(
    db,
    sql`select day, net_minor as "netMinor", held_minor as "heldMinor", held_until as "heldUntil" from payout_days
        where business_id = ${db.businessId} and release_payout_id = ${payoutId} order by day`,
  );

/** What is held back now of the business, by currency and the day until which; minor units. */
export const heldNow = (db: Db): Promise<{ currency: string; until: CalendarDate; minor: bigint }[]> =>
  many(
    db,
    sql`select currency, held_until as until, sum(held_minor)::bigint as minor from payout_days
        where business_id = ${db.businessId} and payee = ${db.businessId} and held_minor > 0 and released_on is null
        group by currency, held_until order by held_until, currency`,
  );

/** In which payout of the business a day is; null where in none yet. */
export const payoutOfDay = (db: Db, day: CalendarDate, currency: string): Promise<PayoutRow | null> =>
  maybeOne(
    db,
    sql`select ${PAYOUT} where payouts.business_id = ${db.businessId} and payouts.id = (
          select payout_id from payout_days where business_id = ${db.businessId} and payee = ${db.businessId} and currency = ${currency}
            and day = ${day})`,
  );

/** What a partner was given or gave back on a day; minor units. */
export type PartnerMovement = {
  readonly id: string;
  readonly partnerId: string;
  readonly kind: 'share' | 'reversal' | 'by-hand' | 'came-back' | 'disputed' | 'dispute-won';
  readonly paymentId: string | null;
  readonly currency: string;
  readonly minor: bigint;
  readonly at: Date;
  readonly day: CalendarDate;
  /** Who paid, what for, and of how much it is; empty and 0 for what is of no payment. */
  readonly payer: string;
  readonly subject: string;
  readonly ofMinor: bigint;
};

const MOVEMENT = sql`m.id, m.partner_id as "partnerId", m.kind, m.payment_id as "paymentId", m.currency, m.minor, m.at,
    (m.at at time zone zone)::date as day, coalesce(customers.name, orders.printed->'payer'->>'name', '') as payer,
    coalesce(invoices.number, offers.name, '') as subject, coalesce(p.amount_minor, 0) as "ofMinor"
  from partner_movements m join businesses on businesses.business_id = m.business_id
    left join payments p on p.business_id = m.business_id and p.id = m.payment_id
    left join customers on customers.business_id = p.business_id and customers.id = p.customer_id
    left join orders on orders.business_id = p.business_id and orders.id = p.order_id
    left join offers on offers.business_id = orders.business_id and offers.id = orders.offer_id
    left join invoices on invoices.business_id = p.business_id and invoices.id = p.invoice_id`;

/** What moved of a partner on days from one to another, both included, in order of time. */
export const partnerMovements = (
  db: Db,
  partnerId: string,
  from: CalendarDate,
  to: CalendarDate,
  limit = 2000,
): Promise<PartnerMovement[]> =>
  many(
    db,
    sql`select ${MOVEMENT} where m.business_id = ${db.businessId} and m.partner_id = ${partnerId}
          and (m.at at time zone zone)::date between ${from} and ${to} order by m.at, m.id limit ${limit}`,
  );

/** What all partners got on these days in a currency, by partner; what came back is not of it. Minor units. */
export const partnersParts = (
  db: Db,
  currency: string,
  days: readonly CalendarDate[],
): Promise<{ partnerId: string; name: string; minor: bigint }[]> =>
  many(
    db,
    sql`select m.partner_id as "partnerId", partners.name, sum(minor)::bigint as minor
        from partner_movements m join businesses on businesses.business_id = m.business_id
          join partners on partners.business_id = m.business_id and partners.id = m.partner_id
        where m.business_id = ${db.businessId} and m.currency = ${currency} and kind <> 'came-back'
          and (m.at at time zone zone)::date = any(${[...days]}::date[])
        group by 1, 2 order by 2, 1`,
  );

/** In which currencies a partner was ever given something. */
export async function partnerCurrencies(db: Db, partnerId: string): Promise<string[]> {
  const rows = await many<{ currency: string }>(
    db,
    sql`select distinct currency from partner_movements where business_id = ${db.businessId} and partner_id = ${partnerId} order by currency`,
  );
  return rows.map(({ currency }) => currency);
}

/** What is to come to a partner in a currency as of the beginning of a day: what moved before, less what had arrived; minor units. */
export async function partnerOwed(db: Db, partnerId: string, currency: string, before: CalendarDate): Promise<bigint> {
  const row = await one<{ minor: bigint }>(
    db,
    sql`select (coalesce((select sum(minor) from partner_movements m join businesses using (business_id)
              where m.business_id = ${db.businessId} and partner_id = ${partnerId} and m.currency = ${currency} and kind <> 'came-back'
                and (at at time zone zone)::date < ${before}), 0)
          - coalesce((select sum(amount_minor) from payouts where business_id = ${db.businessId} and partner_id = ${partnerId}
              and currency = ${currency} and state = 'arrived' and settled_on < ${before}), 0))::bigint as minor`,
  );
  return row.minor;
}

/** A partner's payouts in a currency that arrived on days from one to another, both included. */
export const arrivedPayouts = (
  db: Db,
  partnerId: string,
  currency: string,
  from: CalendarDate,
  to: CalendarDate,
): Promise<(PayoutRow & { readonly settledOn: CalendarDate })[]> =>
  many(
    db,
    sql`select ${PAYOUT} where payouts.business_id = ${db.businessId} and payouts.partner_id = ${partnerId} and payouts.currency = ${currency}
          and payouts.state = 'arrived' and settled_on between ${from} and ${to} order by settled_on, payouts.number`,
  );

/** By how much the card fees of a span are above what was agreed in a currency; below 0 where they are less, minor units. */
export async function feesBeyondBetween(db: Db, currency: string, from: Date, to: Date): Promise<bigint> {
  const row = await one<{ minor: bigint }>(
    db,
    sql`select coalesce(sum(fee_minor - agreed_fee_minor), 0)::bigint as minor from payments
        where business_id = ${db.businessId} and currency = ${currency} and state = 'paid' and fee_minor <> agreed_fee_minor
          and at >= ${from} and at < ${to}`,
  );
  return row.minor;
}

/** Writes down what moved of partners; the rows' ids are made anew. */
export const insertPartnerMovements = (
  tx: Tx,
  rows: readonly {
    readonly partnerId: string;
    readonly paymentId: string | null;
    readonly payoutId?: string;
    readonly kind: PartnerMovement['kind'];
    readonly currency: string;
    readonly minor: bigint;
  }[],
): Promise<number> =>
  run(
    tx,
    sql`insert into partner_movements (business_id, id, partner_id, payment_id, payout_id, kind, currency, minor, at)
        select ${tx.businessId}, gen_random_uuid(), "partnerId", "paymentId", "payoutId", kind, currency, minor, ${tx.now}
        from jsonb_to_recordset(${records(rows)}::jsonb) as given ("partnerId" uuid, "paymentId" uuid, "payoutId" uuid, kind text,
          currency text, minor bigint)`,
  );
