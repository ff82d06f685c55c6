import { matcher } from '@/core/bank/match/match';
import { nameWords } from '@/core/bank/match/names';
import { type MatchLine, type OpenThings, type Proposal } from '@/core/bank/match/things';
import { type BankLine, bankRules } from '@/db/bank-lines';
import {
  checksToMatch,
  invoicesToMatch,
  paidBefore,
  paymentsToMatch,
  payoutsToMatch,
  refundsToMatch,
} from '@/db/bank-things';
import type { Db } from '@/db/pool';

/** A key as it stands in a file for the bank, or on its statement: letters and digits, the last 35 of them. */
const bareKey = (key: string): string => key.replace(/[^A-Za-z0-9]/g, '').toUpperCase();
const END_TO_END = 35;

/** All that lines of a currency can be about, as of now. */
export async function openThings(db: Db, currency: string): Promise<OpenThings> {
  const checks = await checksToMatch(db);
  return {
    invoices: await invoicesToMatch(db, currency),
    payouts: await payoutsToMatch(db, currency),
    refunds: await refundsToMatch(db, currency),
    payments: await paymentsToMatch(db, currency),
    rules: await bankRules(db),
    before: (await paidBefore(db)).map(({ name, ...one }) => ({ ...one, words: nameWords(name).join(' ') })),
    checks: checks.flatMap((id) =>
      [1, 2].map((at) => bareKey(`${db.businessId.replaceAll('-', '')}.${id}.${at}`).slice(-END_TO_END)),
    ),
  };
}

/** What each line could be for, the likeliest first. */
export async function proposalsOf(
  db: Db,
  currency: string,
  lines: readonly BankLine[],
): Promise<Map<string, Proposal[]>> {
  if (lines.length === 0) return new Map();
  const propose = matcher(await openThings(db, currency));
  return new Map(lines.map((line): [string, Proposal[]] => [line.id, propose(line satisfies MatchLine)]));
}
