import type { AuthorisedHow } from '@/core/timeline/timeline';
import type { Db, Tx } from './pool';
import { many, maybeOne, run, sql } from './sql';

/** That a customer agreed to being charged again; never changed, only withdrawn. */
export type Authorisation = {
  readonly id: string;
  readonly customerId: string;
  readonly cardId: string | null;
  /** Null where it is for single purchases. */
  readonly planId: string | null;
  readonly how: AuthorisedHow;
  readonly text: string;
  readonly textVersion: number;
  readonly givenBy: string;
  readonly takenBy: string;
  /** A network address, or the desk. */
  readonly givenFrom: string;
  readonly fileId: string | null;
  readonly givenAt: Date;
  readonly withdrawnAt: Date | null;
  readonly withdrawnBy: string | null;
};

const COLUMNS = sql`id, customer_id as "customerId", card_id as "cardId", plan_id as "planId", how, text, text_version as "textVersion",
  given_by as "givenBy", taken_by as "takenBy", given_from as "givenFrom", file_id as "fileId", given_at as "givenAt",
  withdrawn_at as "withdrawnAt", withdrawn_by as "withdrawnBy"`;

export const insertAuthorisation = (tx: Tx, one: Omit<Authorisation, 'withdrawnAt' | 'withdrawnBy'>): Promise<number> =>
  run(
    tx,
    sql`insert into authorisations (id, business_id, customer_id, card_id, plan_id, how, text, text_version, given_by, taken_by,
          given_from, file_id, given_at)
        values (${one.id}, ${tx.businessId}, ${one.customerId}, ${one.cardId}, ${one.planId}, ${one.how}, ${one.text},
          ${one.textVersion}, ${one.givenBy}, ${one.takenBy}, ${one.givenFrom}, ${one.fileId}, ${one.givenAt})`,
  );

export const authorisationById = (db: Db, id: string): Promise<Authorisation | null> =>
  maybeOne(db, sql`select ${COLUMNS} from authorisations where business_id = ${db.businessId} and id = ${id}`);

/** A customer's authorisations, latest first. */
export const authorisationsOf = (db: Db, customerId: string): Promise<Authorisation[]> =>
  many(
    db,
    sql`select ${COLUMNS} from authorisations where business_id = ${db.businessId} and customer_id = ${customerId} order by given_at desc, id limit 100`,
  );

/** Withdraws what stands of a customer's authorisations: all of them, or those of one plan. Returns how many there were. */
export const withdraw = (tx: Tx, customerId: string, planId: string | null, by: string): Promise<number> =>
  run(
    tx,
    sql`update authorisations set withdrawn_at = ${tx.now}, withdrawn_by = ${by}
        where business_id = ${tx.businessId} and customer_id = ${customerId} and withdrawn_at is null
          and (${planId}::uuid is null or plan_id = ${planId})`,
  );

/** Whether an authorisation stands under which a plan may be charged. */
export async function isAuthorised(db: Db, planId: string): Promise<boolean> {
  const row = await maybeOne<{ one: number }>(
    db,
    sql`select 1 as one from authorisations where business_id = ${db.businessId} and plan_id = ${planId} and withdrawn_at is null limit 1`,
  );
  return row !== null;
}

/** The wording that the business asks its customers to agree to now; null while it is the usual one. */
export const currentText = (db: Db): Promise<{ version: number; text: string } | null> =>
  maybeOne(
    db,
    sql`select version, text from authorisation_texts where business_id = ${db.businessId} order by version desc limit 1`,
  );

export const insertText = (tx: Tx, version: number, text: string, byName: string): Promise<number> =>
  run(
    tx,
    sql`insert into authorisation_texts (business_id, version, text, created_at, by_name)
        values (${tx.businessId}, ${version}, ${text}, ${tx.now}, ${byName})`,
  );
