import { type CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { type PayoutPolicy, type ProcessorTerms } from '@/core/payout/policy';
import { bankAccounts } from '@/db/bank-accounts';
import { type Business, businessById } from '@/db/businesses';
import { heldNow, type PayoutRow, payoutRows, payoutSettings, returnedPayouts } from '@/db/payouts';
import type { Db } from '@/db/pool';
import { desk } from '@/flows/door/operation';
import type { ShownAccount } from './accounts';
import { type Gathering, gatheringOf } from './gathering';

export type { PayoutRow };

const PAGE = 40;
const MOST_RETURNED = 100;
export type PayoutList = {
  readonly business: Business;
  readonly today: CalendarDate;
  readonly policy: PayoutPolicy;
  readonly terms: ProcessorTerms;
  readonly returned: readonly PayoutRow[];
  readonly gathering: readonly Gathering[];
  /** Latest first. */
  readonly rows: readonly PayoutRow[];
  readonly next: number | null;
  readonly held: readonly { readonly currency: string; readonly until: CalendarDate; readonly minor: bigint }[];
  readonly accounts: readonly ShownAccount[];
};

/** Payouts: what came back, what gathers, and what was paid out, latest first. */
export const payoutList = desk('sums').read(async (db): Promise<PayoutList> => {
  const business = await businessById(db);
  const accounts = await bankAccounts(db);
  const { policy, terms } = await payoutSettings(db);
  return {
    business,
    today: dateInZone(db.now, business.zone),
    policy,
    terms,
    returned: await returnedPayouts(db, MOST_RETURNED),
    gathering: await gatheringOf(db, business, accounts),
    ...(await pageOf(db, null)),
    held: await heldNow(db),
    accounts: accounts.map(({ credits: _, ...account }) => account),
  };
});

async function pageOf(db: Db, before: number | null): Promise<Pick<PayoutList, 'rows' | 'next'>> {
  const rows = await payoutRows(db, PAGE + 1, before);
  const shown = rows.slice(0, PAGE);
  return {
    rows: shown.filter(({ state }) => state !== 'returned'),
    next: rows.length > PAGE ? (shown.at(-1)?.number ?? null) : null,
  };
}

/** Further payouts, before a number. */
export const payoutPage = desk('sums').read(
  async (db, before: number): Promise<Pick<PayoutList, 'rows' | 'next' | 'business'>> => ({
    business: await businessById(db),
    ...(await pageOf(db, before)),
  }),
);
