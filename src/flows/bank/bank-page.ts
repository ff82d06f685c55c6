import type { MatchRule, Proposal } from '@/core/bank/match/things';
import { type Gap, gapsOf } from '@/core/bank/statement/series';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import {
  type BankLine,
  type BankMatch,
  bankLines,
  bankRules,
  type KeptStatement,
  matchesOf,
  removeRule,
  statementAccounts,
  statementsOf,
} from '@/db/bank-lines';
import { invoicesToMatch } from '@/db/bank-things';
import { type Business, businessById } from '@/db/businesses';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { proposalsOf } from './proposing';

/** So many lines that wait are shown at the most, and so many of those that are matched at first and altogether. */
const MOST_OPEN = 200;
export const MATCHED_FIRST = 40;
const MOST_DONE = 2000;
const MOST_FOUND = 12;

/** A line with what it could be for, or what it was for. */
export type ShownLine = BankLine & {
  readonly proposals: readonly Proposal[];
  readonly matches: readonly BankMatch[];
};

/** An account of which there are statements. */
export type StatementAccount = Awaited<ReturnType<typeof statementAccounts>>[number];

/** The bank's side of an account in a currency. */
export type BankPage = {
  readonly business: Business;
  readonly today: CalendarDate;
  readonly accounts: readonly StatementAccount[];
  /** The account that is shown; null where there is no statement yet. */
  readonly shown: StatementAccount | null;
  readonly lines: readonly ShownLine[];
  /** Whether more lines wait than are shown. */
  readonly more: boolean;
  /** How many matched lines to ask for to see older ones; null where there are none. */
  readonly olderMatched: number | null;
  readonly latest: KeptStatement | null;
  /** Sums of the latest statement's own lines; minor units. */
  readonly moneyIn: { readonly count: number; readonly minor: bigint };
  readonly moneyOut: { readonly count: number; readonly minor: bigint };
  readonly gaps: readonly Gap[];
  /** What is always so. */
  readonly rules: readonly MatchRule[];
  /** Statements whose opening, lines and closing do not agree. */
  readonly differing: readonly KeptStatement[];
};

const NOTHING = { count: 0, minor: 0n };

/**
 * What waits at the bank and what was matched last; of the account that is asked for, else the one with most that waits.
 *
 * @param matched how many of the matched lines, latest first
 */
export const bankPage = desk('see').read(
  async (db, account: string, currency: string, matched: number = MATCHED_FIRST): Promise<BankPage> => {
    const business = await businessById(db);
    const today = dateInZone(db.now, business.zone);
    const accounts = await statementAccounts(db);
    const shown = accounts.find((one) => one.account === account && one.currency === currency) ?? accounts[0] ?? null;
    if (!shown)
      return {
        business,
        today,
        accounts,
        shown,
        lines: [],
        more: false,
        olderMatched: null,
        latest: null,
        moneyIn: NOTHING,
        moneyOut: NOTHING,
        gaps: [],
        rules: [],
        differing: [],
      };
    const of = (states: readonly BankLine['state'][], limit: number, day: CalendarDate | null = null) =>
      bankLines(db, shown.account, shown.currency, { states, limit, day });
    const open = await of(['open', 'later'], MOST_OPEN + 1);
    const most = Math.min(matched, MOST_DONE);
    const done = await of(['matched'], most + 1);
    const lines = [...open.slice(0, MOST_OPEN), ...done.slice(0, most)];
    const proposals = await proposalsOf(db, shown.currency, open.slice(0, MOST_OPEN));
    const matches = await matchesOf(
      db,
      lines.map(({ id }) => id),
    );
    const statements = await statementsOf(db, shown.account, shown.currency);
    const latest = statements.at(-1) ?? null;
    const own = latest?.to ? await of(['open', 'later', 'matched'], 5000, latest.to) : [];
    const sum = (list: readonly BankLine[]) => ({
      count: list.length,
      minor: list.reduce((all, { amount }) => all + amount, 0n),
    });
    return {
      business,
      today,
      accounts,
      shown,
      lines: lines.map((line) => ({
        ...line,
        proposals: proposals.get(line.id) ?? [],
        matches: matches.filter(({ lineId }) => lineId === line.id),
      })),
      more: open.length > MOST_OPEN,
      olderMatched: done.length > most && most < MOST_DONE ? most + MATCHED_FIRST : null,
      latest,
      moneyIn: sum(own.filter(({ amount }) => amount > 0n)),
      moneyOut: sum(own.filter(({ amount }) => amount < 0n)),
      gaps: gapsOf(statements),
      rules: await bankRules(db),
      differing: statements.filter(({ balances }) => balances === 'differ'),
    };
  },
);

/** Open invoices of a currency by number or customer, for a line that none of the proposals fits. */
export const findInvoices = desk('see').read(
  async (
    db,
    currency: string,
    words: string,
  ): Promise<{ id: string; number: string; customer: string; due: bigint; dueOn: CalendarDate | null }[]> => {
    const wanted = words.trim().toLowerCase().split(/\s+/).filter(Boolean);
    const all = await invoicesToMatch(db, currency);
    return all
      .filter(({ number, customer }) => wanted.every((word) => `${number} ${customer}`.toLowerCase().includes(word)))
      .slice(0, MOST_FOUND)
      .map(({ id, number, customer, due, dueOn }) => ({ id, number, customer, due, dueOn }));
  },
);

/** What was always so is no longer; what was matched by it stays. @throws Refusal `not-found` */
export const forgetRule = desk('take').write(async (tx, id: string): Promise<void> => {
  if ((await removeRule(tx, id)) === 0) throw new Refusal('not-found');
});
