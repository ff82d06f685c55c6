import { businessIds } from '@/db/businesses';
import { type LedgerTrouble, ledgerTroubles } from '@/db/ledger';
import { outsideBusiness, readBusiness } from '@/db/transaction';

/** Proves the books of every business, each within its own wall; what is found belongs in the log and to a person. */
export async function checkBooks(): Promise<(LedgerTrouble & { businessId: string })[]> {
  const troubles: (LedgerTrouble & { businessId: string })[] = [];
  for (const businessId of await outsideBusiness(businessIds)) {
    const own = await readBusiness(businessId, (db) => ledgerTroubles(db, businessId));
    troubles.push(...own.map((trouble) => ({ ...trouble, businessId })));
  }
  return troubles;
}
