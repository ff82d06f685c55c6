import { businessIds } from '@/db/businesses';
import { type LedgerTrouble, ledgerTroubles } from '@/db/ledger';
import { stockTroubles } from '@/db/stock';
import { overAll } from '@/flows/door/operation';
import { keptCardTroubles } from '@/flows/plan/prove-cards';

/** Proves the books of every business, its stock and its cards on file, each within its own wall; what is found belongs in the log and to a person. */
export const checkBooks = overAll().run(async (house): Promise<(LedgerTrouble & { businessId: string })[]> => {
  const troubles: (LedgerTrouble & { businessId: string })[] = [];
  for (const businessId of await house.outside(businessIds)) {
    const ctx = house.within(businessId);
    const own = [
      ...(await ctx.read((db) => ledgerTroubles(db))),
      ...(await ctx.read((db) => stockTroubles(db))),
      ...(await keptCardTroubles(ctx)),
    ];
    troubles.push(...own.map((trouble) => ({ ...trouble, businessId })));
  }
  return troubles;
});
