import { businessIds } from '@/db/businesses';
import { type LedgerTrouble, ledgerTroubles } from '@/db/ledger';
import { overAll } from '@/flows/door/operation';

/** Proves the books of every business, each within its own wall; what is found belongs in the log and to a person. */
export const checkBooks = overAll().run(async (house): Promise<(LedgerTrouble & { businessId: string })[]> => {
  const troubles: (LedgerTrouble & { businessId: string })[] = [];
  for (const businessId of await house.outside(businessIds)) {
    const own = await house.within(businessId).read((db) => ledgerTroubles(db));
    troubles.push(...own.map((trouble) => ({ ...trouble, businessId })));
  }
  return troubles;
});
