import type { Db, Tx } from './pool';
import { many, maybeOne, run, sql } from './sql';

/** How an account stands: its two small sums are asked for, they were typed in, or nothing goes there (any more). */
export type AccountState = 'checking' | 'checked' | 'refused' | 'left';

/** An account to which money is paid out, of the business (`partnerId` null) or of a partner, for one currency. */
export type BankAccount = {
  readonly id: string;
  readonly partnerId: string | null;
  readonly currency: string;
  readonly number: string;
  readonly holder: string;
  readonly state: AccountState;
  /** The two small sums, in minor units. */
  readonly credits: readonly bigint[];
  readonly tries: number;
  /** Why nothing goes there, as the bank says it. */
  readonly reason: string;
  readonly madeAt: Date;
};

const ACCOUNT = sql`id, partner_id as "partnerId", currency, number, holder, state, credits, tries, reason, made_at as "madeAt"`;

export const insertBankAccount = (
  tx: Tx,
  account: Omit<BankAccount, 'state' | 'tries' | 'reason' | 'madeAt'>,
): Promise<number> =>
  run(
    tx,
    sql`insert into bank_accounts (id, business_id, partner_id, currency, number, holder, state, credits, made_at, act_at)
        values (${account.id}, ${tx.businessId}, ${account.partnerId}, ${account.currency}, ${account.number}, ${account.holder},
          'checking', ${[...account.credits]}::bigint[], ${tx.now}, ${tx.now})`,
  );

export const bankAccountById = (db: Db, id: string): Promise<BankAccount | null> =>
  maybeOne(db, sql`select ${ACCOUNT} from bank_accounts where business_id = ${db.businessId} and id = ${id}`);

/** The same, held until the transaction ends. */
export const lockedBankAccount = (tx: Tx, id: string): Promise<BankAccount | null> =>
  maybeOne(
    tx,
    sql`select ${ACCOUNT} from bank_accounts where business_id = ${tx.businessId} and id = ${id} for update`,
  );

/** All accounts that are in use, or were refused and not replaced: the business's first. */
export const bankAccounts = (db: Db, partnerId?: string | null): Promise<BankAccount[]> =>
  many(
    db,
    sql`select ${ACCOUNT} from bank_accounts where business_id = ${db.businessId} and state <> 'left'
          ${partnerId === undefined ? sql`` : partnerId === null ? sql`and partner_id is null` : sql`and partner_id = ${partnerId}`}
        order by partner_id nulls first, currency, made_at, id`,
  );

/** The account of a payee and currency to which money goes; null where there is none. @param payee the business's id, or a partner's */
export const checkedAccount = (db: Db, payee: string, currency: string): Promise<BankAccount | null> =>
  maybeOne(
    db,
    sql`select ${ACCOUNT} from bank_accounts where business_id = ${db.businessId} and payee = ${payee} and currency = ${currency}
          and state = 'checked'`,
  );

/** Writes down how it stands; nothing is asked of the bank about it any more. */
export const updateBankAccount = (
  tx: Tx,
  id: string,
  { state, tries, reason = '' }: Pick<BankAccount, 'state' | 'tries'> & { readonly reason?: string },
): Promise<number> =>
  run(
    tx,
    sql`update bank_accounts set state = ${state}, tries = ${tries}, reason = ${reason},
          checked_at = case when ${state} = 'checked' then ${tx.now} else checked_at end,
          act_at = case when ${state} = 'checking' then act_at end
        where business_id = ${tx.businessId} and id = ${id}`,
  );

/** Leaves what else there is of this payee and currency in one of these states. */
export const leaveOthers = (tx: Tx, account: BankAccount, states: readonly AccountState[]): Promise<number> =>
  run(
    tx,
    sql`update bank_accounts set state = 'left', act_at = null
        where business_id = ${tx.businessId} and payee = coalesce(${account.partnerId}::uuid, ${tx.businessId})
          and currency = ${account.currency} and state = any(${[...states]}::text[]) and id <> ${account.id}`,
  );

/** Accounts whose small sums the bank is to be asked about by now. */
export const accountsToAct = (db: Db): Promise<BankAccount[]> =>
  many(
    db,
    sql`select ${ACCOUNT} from bank_accounts where business_id = ${db.businessId} and act_at <= ${db.now} order by act_at, id limit 100`,
  );

/** When the bank is asked next; null for not again. */
export const updateAccountAct = (tx: Tx, id: string, at: Date | null): Promise<number> =>
  run(
    tx,
    sql`update bank_accounts set act_at = ${at} where business_id = ${tx.businessId} and id = ${id} and state = 'checking'`,
  );
