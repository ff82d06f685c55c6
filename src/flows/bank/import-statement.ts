import { randomUUID } from 'node:crypto';
import { type CsvMapping, type CsvTable, csvTrouble, guessedCsv, readCsvStatement } from '@/core/bank/statement/csv';
import { lineKeys, storable } from '@/core/bank/statement/keys';
import { type BankStatement, balancesOf } from '@/core/bank/statement/statement';
import { RuleError } from '@/core/rule-error';
import {
  csvMapping,
  insertLines,
  insertStatement,
  keepCsvMapping,
  type NewLine,
  newKeys,
  ownAccounts,
  statementAccounts,
  updateStatementsFetched,
} from '@/db/bank-lines';
import { businessById } from '@/db/businesses';
import { type Context, desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { readSafely } from '@/flows/file/read-safely';
import { log } from '@/outside/log';
import { services } from '@/outside/services';
import { takeSureOf } from './take-sure';

/** What became of a file: what each statement of it brought, or what has to be said of its columns first. */
export type Imported =
  | { readonly kind: 'read'; readonly statements: readonly ReadStatement[]; readonly matched: number }
  | {
      readonly kind: 'columns';
      readonly headings: readonly string[];
      readonly samples: readonly (readonly string[])[];
      readonly mapping: CsvMapping;
    };

/** One statement of it; sums in minor units. */
export type ReadStatement = {
  readonly account: string;
  readonly currency: string;
  readonly lines: number;
  readonly newLines: number;
  readonly balances: 'agree' | 'differ' | 'unknown';
  /** By how much opening + lines is not the closing. */
  readonly off: bigint;
};

const SAMPLES = 3;
const LONGEST = 400;
const LONGEST_ACCOUNT = 40;
const LONGEST_HEADINGS = 600;

const accountKey = (account: string): string =>
  storable(account).replace(/\s/g, '').toUpperCase().slice(0, LONGEST_ACCOUNT);
/** Cut before it is made whole: half of a sign may be left. */
const cut = (text: string | undefined): string => storable((text ?? '').slice(0, LONGEST));

/** The headings of a CSV under which its mapping is kept. */
const headingsKey = ({ headings }: CsvTable): string => storable(headings.join('\u001f').slice(0, LONGEST_HEADINGS));

/**
 * Reads a bank's file: camt.053, MT940, OFX, or a CSV whose columns are known or told. Each line comes in once, however often it is
 * read. What is sure is matched at once.
 *
 * @param mapping of the columns of a CSV; kept for the next file with these headings
 * @throws Refusal `statement-not-read` with what is wrong, `file-too-heavy`
 */
export const importStatement = desk('take').run(
  async (ctx, name: string, bytes: Uint8Array, mapping: CsvMapping | null): Promise<Imported> => {
    const file = await readSafely('bank', bytes);
    if (file.kind === 'broken') throw notRead(file.detail);
    if (file.kind === 'statements') return keepAll(ctx, name, file.statements);
    const { table } = file;
    const known = mapping ?? (await knownMapping(ctx, table));
    if (!mapping && (!known || csvTrouble(known))) {
      const guessed = known ?? (await guess(ctx, table));
      return { kind: 'columns', headings: table.headings, samples: table.rows.slice(0, SAMPLES), mapping: guessed };
    }
    const told = known as CsvMapping;
    const trouble = csvTrouble(told);
    if (trouble) throw notRead(trouble);
    const statement = readable(() => readCsvStatement(table, told));
    await ctx.write((tx) => keepCsvMapping(tx, headingsKey(table), told));
    return keepAll(ctx, name, [statement]);
  },
);

const notRead = (detail: string): Refusal =>
  new Refusal('statement-not-read', [{ field: 'file', words: `This file cannot be read: ${detail}` }]);

function readable<T>(work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (error instanceof RuleError) throw notRead(error.message);
    throw error;
  }
}

const knownMapping = (ctx: Context, table: CsvTable): Promise<CsvMapping | null> =>
  ctx.read(async (db) => (await csvMapping(db, headingsKey(table))) as CsvMapping | null);

async function guess(ctx: Context, table: CsvTable): Promise<CsvMapping> {
  return ctx.read(async (db) => {
    const { currency, bank } = await businessById(db);
    const [known] = await statementAccounts(db);
    return guessedCsv(table, known?.account ?? bank.account, known?.currency ?? currency);
  });
}

/** Writes statements down, each with its lines in a transaction of its own, and matches what is sure. */
async function keepAll(ctx: Context, name: string, statements: readonly BankStatement[]): Promise<Imported> {
  const read: ReadStatement[] = [];
  for (const statement of statements) read.push(await ctx.turn((tx) => keep(tx, name, statement)));
  const accounts = new Map(read.map((one) => [`${one.account} ${one.currency}`, one]));
  let matched = 0;
  for (const { account, currency } of accounts.values())
    matched += await takeSureOf(ctx, account, currency, 'by-itself');
  return { kind: 'read', statements: read, matched };
}

async function keep(tx: Writing, name: string, statement: BankStatement): Promise<ReadStatement> {
  const { currency, lines } = statement;
  const account = accountKey(statement.account);
  const keys = lineKeys(lines);
  const fresh = await newKeys(tx, account, currency, keys);
  const rows = lines.flatMap((line, position): NewLine[] => {
    const key = keys[position] ?? '';
    // A line of nothing says something and moves nothing.
    if (!fresh.has(key) || line.amount === 0n) return [];
    return [
      {
        id: randomUUID(),
        key,
        position,
        day: line.day,
        amount: line.amount,
        text: cut([line.text, ...(line.parts ?? []).map(({ text }) => text)].filter(Boolean).join(' ')),
        name: cut(line.name),
        otherAccount: accountKey(cut(line.otherAccount)),
        reference: cut(line.reference),
        endToEnd: cut(line.endToEnd),
        bankReference: cut(line.bankReference),
      },
    ];
  });
  const id = randomUUID();
  const { opening = null, closing = null } = statement;
  const balances = balancesOf(statement);
  const sum = lines.reduce((all, { amount }) => all + amount, 0n);
  await insertStatement(
    tx,
    {
      id,
      account,
      currency,
      called: cut(statement.id),
      from: statement.from ?? lines[0]?.day ?? null,
      to: statement.to ?? lines.at(-1)?.day ?? null,
      opening,
      closing,
      balances,
      lines: lines.length,
      newLines: rows.length,
      name: cut(name),
    },
    tx.name,
  );
  const newLines = rows.length > 0 ? await insertLines(tx, { id, account, currency }, rows) : 0;
  const off = opening !== null && closing !== null ? opening + sum - closing : 0n;
  return { account, currency, lines: lines.length, newLines, balances, off };
}

/** Fetches what the bank has written of our own accounts since the last time; while it does not answer, it waits. */
export async function fetchStatements(ctx: Context): Promise<void> {
  for (const account of await ctx.read(ownAccounts)) {
    const written = await services().bank.statements(account.number, account.currency, account.to);
    if (!written || written.length === 0) continue;
    for (const { day, xml } of written) {
      const file = await readSafely('bank', Buffer.from(xml));
      if (file.kind !== 'statements') {
        log.warn({ day }, 'a statement of the bank could not be read');
        return;
      }
      for (const statement of file.statements) await ctx.turn((tx) => keep(tx, `Fetched, ${day}`, statement));
    }
    const to = written.at(-1)?.day;
    if (to) await ctx.write((tx) => updateStatementsFetched(tx, account.id, to));
    await takeSureOf(ctx, accountKey(account.number), account.currency, 'by-itself');
  }
}

/** Fetches them now. */
export const fetchStatementsNow = desk('take').run(async (ctx): Promise<void> => {
  await fetchStatements(ctx);
});
