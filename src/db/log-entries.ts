import type { Changed } from '@/core/business/money-settings';
import type { Db, Tx } from './pool';
import { many, NONE, run, sql } from './sql';

/** What the log tells of. */
export type LogKind =
  | 'profile'
  | 'taxes'
  | 'charging'
  | 'tariff'
  | 'partner'
  | 'payouts'
  | 'bank-account'
  | 'vouchers'
  | 'signed-in'
  | 'sign-in-failed'
  | 'signed-out'
  | 'password'
  | 'signed-up'
  | 'address-confirmed'
  | 'address-changed'
  | 'password-asked'
  | 'sessions-ended'
  | 'invited'
  | 'invitation-withdrawn'
  | 'joined'
  | 'rights'
  | 'left';

export type LogEntry = {
  readonly id: string;
  readonly kind: LogKind;
  readonly byName: string;
  readonly address: string;
  readonly changes: readonly Changed[];
  readonly notedAt: Date;
};

/** Writes an entry; nobody can change one afterwards. */
export const insertLogEntry = (
  tx: Tx,
  entry: Omit<LogEntry, 'notedAt'> & { readonly personId: string | null },
): Promise<number> =>
  run(
    tx,
    sql`insert into log_entries (business_id, id, kind, person_id, by_name, address, changes, noted_at)
        values (${tx.businessId}, ${entry.id}, ${entry.kind}, ${entry.personId}, ${entry.byName}, ${entry.address},
          ${JSON.stringify(entry.changes)}::jsonb, ${tx.now})`,
  );

/** The latest entries before one, newest first. @param after where the page before ended */
export const logEntries = (db: Db, limit: number, after: { at: Date; id: string } | null): Promise<LogEntry[]> =>
  many(
    db,
    sql`select id, kind, by_name as "byName", address, changes, noted_at as "notedAt" from log_entries
        where business_id = ${db.businessId}
          ${after ? sql`and (noted_at, id) < (${after.at}, ${after.id}::uuid)` : NONE}
        order by noted_at desc, id desc limit ${limit}`,
  );
