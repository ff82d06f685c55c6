import { randomUUID } from 'node:crypto';
import type { Changed } from '@/core/business/money-settings';
import type { LogKind } from '@/core/log/kinds';
import { businessById } from '@/db/businesses';
import { insertLogEntry, type LogEntry, logEntries } from '@/db/log-entries';
import { ownersOf } from '@/db/people';
import { logCsvHead, logCsvRows } from '@/documents/csv/log';
import { desk, type Writing } from '@/flows/door/operation';
import { queueMessages } from '@/flows/message/queue-message';

export type { LogEntry };

/** What was changed, as the subject of the mail says it. */
const CALLED: Partial<Record<LogKind, string>> = {
  profile: 'the profile of the business',
  taxes: 'the tax rules',
  charging: 'how plans are charged',
  tariff: 'the fees agreed with the card processor',
  partner: 'whom shares are paid to',
  payouts: 'when money is paid out',
  'bank-account': 'an account to which money is paid out',
  vouchers: 'how long gift vouchers are good',
  rights: 'who may what',
  'access-rules': 'how people sign in',
  hooks: 'which programs are told',
  keys: 'by which keys programs come in',
  keeping: 'how long things are kept',
  joined: 'who works here',
  left: 'who works here',
};

/** Notes that money settings were changed, with old and new value, and writes to every owner; nothing where nothing was. */
export async function noteSettings(tx: Writing, kind: LogKind, changes: readonly Changed[]): Promise<void> {
  if (changes.length === 0) return;
  const id = randomUUID();
  await insertLogEntry(tx, { id, kind, personId: tx.personId || null, byName: tx.name, address: '', changes });
  const lines = changes.map(({ what, from, to }) => `${what}: ${from || 'nothing'} → ${to || 'nothing'}`);
  const owners = await ownersOf(tx);
  await queueMessages(
    tx,
    owners.map((owner) => ({
      kind: 'settings-changed' as const,
      key: `settings:${id}:${owner.id}`,
      toName: owner.name,
      toAddress: owner.email,
      details: { subject: `${tx.name} changed ${CALLED[kind]}`, text: lines.join('\n').slice(0, 4000) },
    })),
  );
}

/** Notes what was changed, and writes to nobody. */
export const noteChange = (tx: Writing, kind: LogKind, changes: readonly Changed[]): Promise<number> =>
  insertLogEntry(tx, {
    id: randomUUID(),
    kind,
    personId: tx.personId || null,
    byName: tx.name,
    address: '',
    changes,
  });

/** Notes that data was taken along. @param of whose it is, by the id; empty for what is of no one of them */
export const noteExport = (tx: Writing, what: string, of: string): Promise<number> =>
  noteChange(tx, 'exported', [{ what, from: '', to: of || 'taken along' }]);

/** Notes something of signing in. @param address from where, as the network has it */
export const noteAccess = (
  tx: Writing,
  kind: LogKind,
  who: { readonly personId: string; readonly name: string },
  address: string,
): Promise<number> =>
  insertLogEntry(tx, { id: randomUUID(), kind, personId: who.personId, byName: who.name, address, changes: [] });

const PAGE = 60;

/** The latest of the log, and where its next page begins. @param words what all of it has; empty for everything */
export const logPage = desk('people').read(
  async (
    db,
    after: { at: Date; id: string } | null,
    words: string = '',
  ): Promise<{ entries: LogEntry[]; next: LogEntry | null }> => {
    const entries = await logEntries(db, PAGE + 1, after, words);
    const shown = entries.slice(0, PAGE);
    return { entries: shown, next: entries.length > PAGE ? (shown.at(-1) ?? null) : null };
  },
);

const PART = 2000;

/** All that is asked of the log as CSV, part by part. */
export const logFile = desk('people').run(async (ctx, words: string): Promise<AsyncIterable<string>> => {
  const { zone } = await ctx.read(businessById);
  await ctx.keep((tx) => noteExport(tx, 'The log', ''));
  async function* parts(): AsyncIterable<string> {
    yield logCsvHead();
    for (let after: { at: Date; id: string } | null = null; ; ) {
      const entries: LogEntry[] = await ctx.read((db) => logEntries(db, PART, after, words));
      yield logCsvRows(entries, zone);
      const last = entries.at(-1);
      if (entries.length < PART || !last) return;
      after = { at: last.notedAt, id: last.id };
    }
  }
  return parts();
});
