import type { Db, Tx } from './pool';
import { one, run, sql } from './sql';

/** What a business decided on how its people sign in. */
export type AccessRules = {
  readonly stepRequired: boolean;
  /** From which sum on, in minor units of its currency, who gives back is asked again; null for the usual one. */
  readonly askedAboveMinor: bigint | null;
};

export const accessRules = (db: Db): Promise<AccessRules> =>
  one(
    db,
    sql`select step_required as "stepRequired", asked_above_minor as "askedAboveMinor" from businesses
        where business_id = ${db.businessId}`,
  );

export const updateAccessRules = (tx: Tx, rules: AccessRules): Promise<number> =>
  run(
    tx,
    sql`update businesses set step_required = ${rules.stepRequired}, asked_above_minor = ${rules.askedAboveMinor}
        where business_id = ${tx.businessId}`,
  );
