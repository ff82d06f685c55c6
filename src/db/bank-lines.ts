import type { Aside, MatchRule } from '@/core/bank/match/things';
import type { CalendarDate } from '@/core/dates/calendar-date';
import type { Db, Tx } from './pool';
import { many, maybeOne, NONE, records, run, sql } from './sql';

/** A statement that was read; minor units. `account` is without blanks, `called` the bank's own number of it. */
export type KeptStatement = {
  readonly id: string;
  readonly account: string;
  readonly currency: string;
  readonly called: string;
  readonly from: CalendarDate | null;
  readonly to: CalendarDate | null;
  readonly opening: bigint | null;
  readonly closing: bigint | null;
  readonly balances: 'agree' | 'differ' | 'unknown';
  readonly lines: number;
  readonly newLines: number;
  readonly name: string;
  readonly readAt: Date;
  readonly byName: string;
};

const STATEMENT = sql`id, account, currency, called, from_day as "from", to_day as "to", opening_minor as opening, closing_minor as closing,
  balances, lines, new_lines as "newLines", name, read_at as "readAt", by_name as "byName"`;

export const insertStatement = (
  tx: Tx,
  statement: Omit<KeptStatement, 'readAt' | 'byName'>,
  by: string,
): Promise<number> =>
  run(
    tx,
    sql`insert into bank_statements (id, business_id, account, currency, called, from_day, to_day, opening_minor, closing_minor, balances,
          lines, new_lines, name, read_at, by_name)
        values (${statement.id}, ${tx.businessId}, ${statement.account}, ${statement.currency}, ${statement.called}, ${statement.from},
          ${statement.to}, ${statement.opening}, ${statement.closing}, ${statement.balances}, ${statement.lines}, ${statement.newLines},
          ${statement.name}, ${tx.now}, ${by})`,
  );

/** The statements of an account in a currency, oldest first; those that brought nothing new are left out. */
export const statementsOf = (db: Db, account: string, currency: string): Promise<KeptStatement[]> =>
  many(
    db,
    sql`select ${STATEMENT} from bank_statements where business_id = ${db.businessId} and account = ${account} and currency = ${currency}
          and (new_lines > 0 or lines = 0) order by to_day nulls first, from_day nulls first, read_at, id`,
  );

/** The accounts of which there are statements, with how many lines of each wait. */
export const statementAccounts = (
  db: Db,
): Promise<{ account: string; currency: string; to: CalendarDate | null; open: number }[]> =>
  many(
    db,
    sql`select account, currency, max(to_day) as "to", (
          select count(*)::int from bank_lines l where l.business_id = s.business_id and l.account = s.account and l.currency = s.currency
            and state = 'open') as open
        from bank_statements s where business_id = ${db.businessId} group by business_id, account, currency order by open desc, account, currency`,
  );

/** A line of a statement; minor units, money in is positive. */
export type BankLine = {
  readonly id: string;
  readonly account: string;
  readonly currency: string;
  readonly position: number;
  readonly day: CalendarDate;
  readonly amount: bigint;
  readonly text: string;
  readonly name: string;
  readonly otherAccount: string;
  readonly reference: string;
  readonly endToEnd: string;
  readonly state: 'open' | 'later' | 'matched';
};

const LINE = sql`id, account, currency, position, day, amount_minor as amount, text, name, other_account as "otherAccount", reference,
  end_to_end as "endToEnd", state`;

/** Of these keys those that are not there yet. */
export async function newKeys(
  db: Db,
  account: string,
  currency: string,
  keys: readonly string[],
): Promise<Set<string>> {
  const rows = await many<{ key: string }>(
    db,
    sql`select key from unnest(${[...keys]}::text[]) as given (key) where not exists (
          select from bank_lines l where l.business_id = ${db.businessId} and l.account = ${account} and l.currency = ${currency} and l.key = given.key)`,
  );
  return new Set(rows.map(({ key }) => key));
}

export type NewLine = Omit<BankLine, 'state' | 'account' | 'currency'> & {
  readonly key: string;
  readonly bankReference: string;
};

/** Writes lines down; one that is there already (somebody else read the same file meanwhile) stays as it is. How many were new. */
export const insertLines = (
  tx: Tx,
  { id, account, currency }: Pick<KeptStatement, 'id' | 'account' | 'currency'>,
  lines: readonly NewLine[],
): Promise<number> =>
  run(
    tx,
    sql`insert into bank_lines (id, business_id, statement_id, account, currency, key, position, day, amount_minor, text, name, other_account,
          reference, end_to_end, bank_reference)
        select id, ${tx.businessId}, ${id}, ${account}, ${currency}, key, position, day, amount, text, name, "otherAccount", reference,
          "endToEnd", "bankReference"
        from jsonb_to_recordset(${records(lines)}::jsonb) as given (id uuid, key text, position integer, day date, amount bigint, text text,
          name text, "otherAccount" text, reference text, "endToEnd" text, "bankReference" text)
        on conflict (business_id, account, currency, key) do nothing`,
  );

/** Lines of an account, latest day first. @param states which of them @param day only those of one day */
export const bankLines = (
  db: Db,
  account: string,
  currency: string,
  asked: { readonly states: readonly BankLine['state'][]; readonly day?: CalendarDate | null; readonly limit: number },
): Promise<BankLine[]> =>
  many(
    db,
    sql`select ${LINE} from bank_lines where business_id = ${db.businessId} and account = ${account} and currency = ${currency}
          and state = any(${[...asked.states]}::text[]) ${asked.day ? sql`and day = ${asked.day}` : NONE}
        order by day desc, position, id limit ${asked.limit}`,
  );

/** A line, held until the transaction ends. */
export const lockedLine = (tx: Tx, id: string): Promise<BankLine | null> =>
  maybeOne(tx, sql`select ${LINE} from bank_lines where business_id = ${tx.businessId} and id = ${id} for update`);

export const updateLineState = (tx: Tx, id: string, state: BankLine['state']): Promise<number> =>
  run(tx, sql`update bank_lines set state = ${state} where business_id = ${tx.businessId} and id = ${id}`);

/** How many lines wait for somebody, and since which day. */
export const waitingLines = (
  db: Db,
): Promise<{ account: string; currency: string; count: number; since: CalendarDate }[]> =>
  many(
    db,
    sql`select account, currency, count(*)::int as count, min(day) as since from bank_lines
        where business_id = ${db.businessId} and state = 'open' group by account, currency order by since`,
  );

/** What a line, or a part of it, was for; minor units. */
export type BankMatch = {
  readonly id: string;
  readonly lineId: string;
  readonly kind: 'invoice' | 'payout' | 'refund' | 'payment' | 'aside';
  readonly aside: Aside | null;
  readonly words: string;
  readonly amount: bigint;
  readonly invoiceId: string | null;
  readonly paymentId: string | null;
  readonly payoutId: string | null;
  readonly refundId: string | null;
  readonly press: string;
  readonly byName: string;
  readonly madeAt: Date;
};

const MATCH = sql`id, line_id as "lineId", kind, aside, words, amount_minor as amount, invoice_id as "invoiceId", payment_id as "paymentId",
  payout_id as "payoutId", refund_id as "refundId", press, by_name as "byName", made_at as "madeAt"`;

export const insertMatches = (
  tx: Tx,
  matches: readonly Omit<BankMatch, 'byName' | 'madeAt'>[],
  by: string,
): Promise<number> =>
  run(
    tx,
    sql`insert into bank_matches (id, business_id, line_id, kind, aside, words, amount_minor, invoice_id, payment_id, payout_id, refund_id,
          press, by_name, made_at)
        select id, ${tx.businessId}, "lineId", kind, aside, words, amount, "invoiceId", "paymentId", "payoutId", "refundId", press, ${by}, ${tx.now}
        from jsonb_to_recordset(${records(matches)}::jsonb) as given (id uuid, "lineId" uuid, kind text, aside text, words text, amount bigint,
          "invoiceId" uuid, "paymentId" uuid, "payoutId" uuid, "refundId" uuid, press uuid)`,
  );

/** What counts of these lines. */
export const matchesOf = (db: Db, lineIds: readonly string[]): Promise<BankMatch[]> =>
  many(
    db,
    sql`select ${MATCH} from bank_matches where business_id = ${db.businessId} and line_id = any(${[...lineIds]}::uuid[]) and undone_at is null
        order by made_at, id`,
  );

/** Whether a press was carried out already, also where it was taken back since. */
export const isPressDone = async (db: Db, press: string): Promise<boolean> =>
  (await many(db, sql`select 1 from bank_matches where business_id = ${db.businessId} and press = ${press} limit 1`))
    .length > 0;

export const undoMatches = (tx: Tx, ids: readonly string[]): Promise<number> =>
  run(
    tx,
    sql`update bank_matches set undone_at = ${tx.now} where business_id = ${tx.businessId} and id = any(${[...ids]}::uuid[]) and undone_at is null`,
  );

/** On which day's statement a payment, or a payout, stands; null where on none. */
export const statementDayOf = (
  db: Db,
  of: { readonly paymentId: string } | { readonly payoutId: string },
): Promise<{ lineId: string; day: CalendarDate; account: string; currency: string } | null> =>
  maybeOne(
    db,
    sql`select l.id as "lineId", l.day, l.account, l.currency from bank_matches m
          join bank_lines l on l.business_id = m.business_id and l.id = m.line_id
        where m.business_id = ${db.businessId} and undone_at is null
          and ${'paymentId' in of ? sql`m.payment_id = ${of.paymentId}` : sql`m.payout_id = ${of.payoutId}`} limit 1`,
  );

export const bankRules = (db: Db): Promise<MatchRule[]> =>
  many(
    db,
    sql`select id, words, account, is_in as "isIn", customer_id as "customerId", aside, note from bank_rules
        where business_id = ${db.businessId} order by made_at, id`,
  );

/** Keeps what is always so; what was said of the same words and account before is replaced. */
export const keepRule = (tx: Tx, rule: MatchRule, by: string): Promise<number> =>
  run(
    tx,
    sql`insert into bank_rules (id, business_id, words, account, is_in, customer_id, aside, note, made_at, by_name)
        values (${rule.id}, ${tx.businessId}, ${rule.words}, ${rule.account}, ${rule.isIn}, ${rule.customerId}, ${rule.aside}, ${rule.note},
          ${tx.now}, ${by})
        on conflict (business_id, is_in, words, account) do update set customer_id = excluded.customer_id, aside = excluded.aside,
          note = excluded.note, made_at = excluded.made_at, by_name = excluded.by_name`,
  );

export const removeRule = (tx: Tx, id: string): Promise<number> =>
  run(tx, sql`delete from bank_rules where business_id = ${tx.businessId} and id = ${id}`);

export async function csvMapping(db: Db, headings: string): Promise<unknown> {
  const row = await maybeOne<{ mapping: unknown }>(
    db,
    sql`select mapping from csv_mappings where business_id = ${db.businessId} and headings = ${headings}`,
  );
  return row?.mapping ?? null;
}

export const keepCsvMapping = (tx: Tx, headings: string, mapping: object): Promise<number> =>
  run(
    tx,
    sql`insert into csv_mappings (business_id, headings, mapping, kept_at) values (${tx.businessId}, ${headings}, ${JSON.stringify(mapping)}, ${tx.now})
        on conflict (business_id, headings) do update set mapping = excluded.mapping, kept_at = excluded.kept_at`,
  );

/** Our own confirmed accounts with the day up to which their statements were fetched. */
export const ownAccounts = (
  db: Db,
): Promise<{ id: string; number: string; currency: string; to: CalendarDate | null }[]> =>
  many(
    db,
    sql`select id, number, currency, statements_to as "to" from bank_accounts
        where business_id = ${db.businessId} and partner_id is null and state = 'checked' order by currency, id`,
  );

export const updateStatementsFetched = (tx: Tx, id: string, to: CalendarDate): Promise<number> =>
  run(tx, sql`update bank_accounts set statements_to = ${to} where business_id = ${tx.businessId} and id = ${id}`);
