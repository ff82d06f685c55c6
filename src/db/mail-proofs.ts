import type { Db, Tx } from './pool';
import { maybeOne, NONE, one, run, sql } from './sql';

/**
 * What is shown by mail: that an address is somebody's, that they may choose a new password, that they lost their second step, that they
 * agree to another address, by the one so far and by the new one.
 */
export type ProofPurpose = 'confirm' | 'password' | 'lost-steps' | 'old-address' | 'new-address';

/** What somebody was asked to show by mail. */
export type MailProof = {
  readonly personId: string;
  readonly email: string;
  readonly nonce: string;
  readonly madeAt: Date;
  readonly goodUntil: Date;
  /** How often wrong figures were typed. */
  readonly wrong: number;
  readonly usedAt: Date | null;
};

/** Asks for a proof; one that was asked for before is good no longer. */
export const askForProof = (
  tx: Tx,
  purpose: ProofPurpose,
  proof: Pick<MailProof, 'personId' | 'email' | 'nonce' | 'goodUntil'>,
): Promise<number> =>
  run(
    tx,
    sql`insert into mail_proofs (business_id, person_id, purpose, email, nonce, made_at, good_until)
        values (${tx.businessId}, ${proof.personId}, ${purpose}, ${proof.email}, ${proof.nonce}, ${tx.now}, ${proof.goodUntil})
        on conflict (business_id, person_id, purpose) do update set email = excluded.email, nonce = excluded.nonce,
          made_at = excluded.made_at, good_until = excluded.good_until, wrong = 0, used_at = null`,
  );

/** What a person was last asked to show. @param locked held until the transaction ends */
export const proofOf = (db: Db, purpose: ProofPurpose, personId: string, locked = false): Promise<MailProof | null> =>
  maybeOne(
    db,
    sql`select person_id as "personId", email, nonce, made_at as "madeAt", good_until as "goodUntil", wrong, used_at as "usedAt"
        from mail_proofs where business_id = ${db.businessId} and purpose = ${purpose} and person_id = ${personId}
        ${locked ? sql`for update` : NONE}`,
  );

/** Counts wrong figures. Returns how many there are. */
export async function countWrong(tx: Tx, purpose: ProofPurpose, personId: string): Promise<number> {
  const row = await one<{ wrong: number }>(
    tx,
    sql`update mail_proofs set wrong = least(wrong + 1, 1000) where business_id = ${tx.businessId} and purpose = ${purpose}
          and person_id = ${personId} returning wrong`,
  );
  return row.wrong;
}

export const markProofUsed = (tx: Tx, purpose: ProofPurpose, personId: string): Promise<number> =>
  run(
    tx,
    sql`update mail_proofs set used_at = ${tx.now} where business_id = ${tx.businessId} and purpose = ${purpose}
          and person_id = ${personId}`,
  );
