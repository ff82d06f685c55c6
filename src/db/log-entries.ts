import type { Changed } from '@/core/business/money-settings';
import { kindsWith, type LogKind } from '@/core/log/kinds';
import type { Db, Tx } from './pool';
import { joined, likePattern, many, NONE, run, type Statement, sql } from './sql';

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

/** Each typed word stands in who, from where, what was changed, or in the words of what was done. */
const matching = (words: string): Statement =>
  joined(
    words
      .toLowerCase()
      .split(/\s+/)
      .filter(Boolean)
      .slice(0, 6)
      .map(
        (word) => sql`and (lower(by_name || ' ' || address || ' ' || changes::text) like ${likePattern(word)}
          or kind = any(${[...kindsWith(word)]}))`,
      ),
    sql` `,
  );

/** The latest entries before one, newest first. @param after where the page before ended @param words as typed; empty for all */
export const logEntries = (
  db: Db,
  limit: number,
  after: { at: Date; id: string } | null,
  words = '',
): Promise<LogEntry[]> =>
  many(
    db,
    sql`select id, kind, by_name as "byName", address, changes, noted_at as "notedAt" from log_entries
        where business_id = ${db.businessId}
          ${after ? sql`and (noted_at, id) < (${after.at}, ${after.id}::uuid)` : NONE}
          ${words.trim() ? matching(words) : NONE}
        order by noted_at desc, id desc limit ${limit}`,
  );
