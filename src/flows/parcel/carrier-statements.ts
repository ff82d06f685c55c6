/** The carrier's statement of each month beside our own book: fetched after its end or brought as a file, and decided on entry by entry. */
import { randomUUID } from 'node:crypto';
import type { Business } from '@/core/business/business';
import {
  type CarrierStatement,
  type Comparison,
  compareStatement,
  correctionKey,
  readCarrierStatement,
} from '@/core/carrier/statement';
import { type CalendarDate, monthEnd } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { csvTable } from '@/core/file/csv-table';
import { decoded } from '@/core/file/decoded';
import { carrierToppedUp, claimPaid, labelVoided } from '@/core/ledger/movements';
import { jsonMinor, money } from '@/core/money/money';
import { RuleError } from '@/core/rule-error';
import { businessById } from '@/db/businesses';
import { balanceBefore, insertMoves, movesAbout } from '@/db/carrier-moves';
import {
  carrierMonths,
  carrierStatement,
  dueStatements,
  type KeptStatement,
  keepStatement,
  updateAwaited,
  updateCompared,
} from '@/db/carrier-statements';
import { insertEntry } from '@/db/ledger';
import type { Db } from '@/db/pool';
import { parcelIdsByNumbers } from '@/db/shipments';
import { type Context, desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { services } from '@/outside/services';

const DAY_MS = 86_400_000;
/** What differs is looked at once more each day for so long: much of it is on the way. */
const LOOK_DAYS = 35;
const MONTHS = 36;

async function compared(
  db: Db,
  { statement, month }: Pick<KeptStatement, 'statement' | 'month'>,
): Promise<Comparison | null> {
  if (!statement) return null;
  return compareStatement(statement, await movesAbout(db, month), jsonMinor(await balanceBefore(db, month)));
}

const openIn = ({ entries }: Comparison, left: readonly string[]): number =>
  entries.filter(({ key, leftMinor }) => leftMinor !== 0 && !left.includes(key)).length;

/** Counts anew what is open of a month, and when it is looked at next. */
async function recount(tx: Writing, month: CalendarDate, left: readonly string[]): Promise<void> {
  const kept = found(await carrierStatement(tx, month));
  const comparison = await compared(tx, kept);
  const open = comparison ? openIn(comparison, left) : 0;
  const until = new Date(`${monthEnd(month)}T00:00:00Z`).getTime() + LOOK_DAYS * DAY_MS;
  const again = new Date(tx.now.getTime() + DAY_MS);
  await updateCompared(tx, month, { left, open, actAt: open > 0 && again.getTime() < until ? again : null });
}

async function keep(tx: Writing, statement: CarrierStatement, business: Business): Promise<void> {
  const before = await carrierStatement(tx, statement.month, true);
  await keepStatement(tx, statement, { currency: business.currency, byName: tx.name, actAt: null });
  await recount(tx, statement.month, before?.left ?? []);
}

/** The statement in a file, whatever its character set and its separators. @throws RuleError in words */
const readFile = (bytes: Uint8Array, currency: string): CarrierStatement =>
  readCarrierStatement(csvTable(decoded(bytes).text), currency);

const unreadable = ({ message }: RuleError): Refusal =>
  new Refusal('statement-unreadable', [
    { field: 'file', words: `This is not a carrier’s statement that can be read: ${message}.` },
  ]);

/** Fetches a month. @returns whether the carrier gave one */
async function fetchMonth(ctx: Context, month: CalendarDate): Promise<boolean> {
  const business = await ctx.read(businessById);
  const bytes = await services().carrier.statement(ctx.businessId, month);
  if (!bytes) return false;
  const later = await ctx.later();
  const statement = readFile(bytes, business.currency);
  await later.turn((tx) => keep(tx, { ...statement, month }, business));
  return true;
}

/** The worker's part: fetches the months that are due; a month without an answer is asked for the next day again. */
export async function fetchCarrierStatements(ctx: Context): Promise<void> {
  for (const { month } of await ctx.read(dueStatements)) {
    const there = await fetchMonth(ctx, month).catch((error: unknown) => {
      // A file that cannot be read stays away until somebody brings another; the next day may have it whole.
      if (error instanceof RuleError) return false;
      throw error;
    });
    if (!there) await (await ctx.later()).turn((tx) => updateAwaited(tx, month, new Date(tx.now.getTime() + DAY_MS)));
  }
}

/** Fetches a month now. @throws Refusal `no-statement-yet`, `statement-unreadable` */
export const fetchStatementNow = desk('take').run(async (ctx, month: CalendarDate): Promise<void> => {
  try {
    if (!(await fetchMonth(ctx, month))) throw new Refusal('no-statement-yet');
  } catch (error) {
    if (error instanceof RuleError) throw unreadable(error);
    throw error;
  }
});

/** Reads a file that somebody brings. Returns its month. @throws Refusal `statement-unreadable` */
export const bringStatement = desk('take').turn(async (tx, bytes: Uint8Array): Promise<CalendarDate> => {
  const business = await businessById(tx);
  try {
    const statement = readFile(bytes, business.currency);
    await keep(tx, statement, business);
    return statement.month;
  } catch (error) {
    if (error instanceof RuleError) throw unreadable(error);
    throw error;
  }
});

export type StatementDesk = {
  readonly business: Business;
  readonly today: CalendarDate;
  readonly months: readonly KeptStatement[];
  readonly shown: KeptStatement | null;
  readonly comparison: Comparison | null;
};

/** The months at the carrier, and one of them compared. @param month its first day; null for the latest that was read */
export const statementDesk = desk('see').read(async (db, month: CalendarDate | null): Promise<StatementDesk> => {
  const business = await businessById(db);
  const months = await carrierMonths(db, MONTHS);
  const shown = months.find((one) => (month ? one.month === month : one.statement !== null)) ?? months[0] ?? null;
  return {
    business,
    today: dateInZone(db.now, business.zone),
    months,
    shown,
    comparison: shown && (await compared(db, shown)),
  };
});

/**
 * Decides on an entry that differs: books the difference, so that our balance is the carrier's, or leaves it at that. Pressed twice it is
 * booked once.
 *
 * @throws Refusal `not-found`
 */
export const decideEntry = desk('give-back').turn(
  async (tx, month: CalendarDate, key: string, deed: 'book' | 'leave'): Promise<void> => {
    const kept = found(await carrierStatement(tx, month, true));
    const comparison = found(await compared(tx, kept));
    const entry = found(comparison.entries.find((one) => one.key === key));
    if (entry.leftMinor === 0) return;
    if (deed === 'leave') return recount(tx, month, [...new Set([...kept.left, key])]);
    const business = await businessById(tx);
    // A carrier may change its file: what differs again is booked beside what was booked before.
    const cause = correctionKey(month, key, entry.correctedMinor);
    const minor = BigInt(entry.leftMinor);
    const fresh = await insertMoves(tx, [
      {
        id: randomUUID(),
        key: cause,
        kind: 'correction',
        state: 'done',
        parcelId: null,
        currency: kept.currency,
        minor,
        byName: tx.name,
      },
    ]);
    if (fresh > 0) {
      const { kind = 'other', number = '' } = entry.theirs ?? entry.ours ?? {};
      const words = `Carrier’s statement ${month.slice(0, 7)}${number ? `, ${number}` : ''}`;
      const booked = kind === 'top-up' ? carrierToppedUp : kind === 'claim' ? claimPaid : labelVoided;
      await insertEntry(tx, booked(dateInZone(tx.now, business.zone), words, money(minor, kept.currency)), {
        ...{ id: randomUUID(), cause, invoiceId: null, paymentId: null },
      });
    }
    await recount(tx, month, kept.left);
  },
);

/** Where the shipments of numbers stand. */
export const parcelHrefs = desk('see').read(
  async (db, numbers: readonly string[]): Promise<ReadonlyMap<string, string>> =>
    new Map(
      (await parcelIdsByNumbers(db, numbers.filter(Boolean))).map(({ id, number }) => [
        number,
        `/deliver/shipments/${id}`,
      ]),
    ),
);
