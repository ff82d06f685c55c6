import { openClaims } from '@/db/card-claims';
import { keptIds } from '@/db/cards';
import type { LedgerTrouble } from '@/db/ledger';
import type { Context } from '@/flows/door/operation';
import { services } from '@/outside/services';
import { dropLater } from './claim-card';

/** A card that is kept for so long has come onto a file, or its claim has told why not. */
const SETTLED_AFTER_MS = 3_600_000;

/**
 * Compares the cards that the processor keeps for a business with those on file. What is kept without being on any file is dropped;
 * a card on file that is not kept is told only: charging it will be refused, and its holder asked for another.
 */
export async function keptCardTroubles(ctx: Context): Promise<LedgerTrouble[]> {
  const listed = await services().cards.keptCards(`${ctx.businessId}.`);
  if (!listed) return [];
  const { ours, claims } = await ctx.read(async (db) => ({ ours: await keptIds(db), claims: await openClaims(db) }));
  const onFile = new Set(ours);
  const claimed = new Set(claims.flatMap(({ key, keptId }) => [`${ctx.businessId}.${key}`, keptId ?? '']));
  const settledBy = ctx.now.getTime() - SETTLED_AFTER_MS;
  const stray = listed.filter(
    ({ id, key, keptAt }) => !onFile.has(id) && !claimed.has(key) && !claimed.has(id) && keptAt.getTime() <= settledBy,
  );
  if (stray.length > 0) {
    await ctx.write(async (tx) => {
      for (const { id } of stray) await dropLater(tx, id);
    });
  }
  const kept = new Set(listed.map(({ id }) => id));
  const lost = ours.filter((id) => !kept.has(id));
  return [
    ...stray.map(({ id }) => ({ what: 'a card is kept that is on no file', subject: id, off: 1n })),
    ...lost.map((id) => ({ what: 'a card on file is not kept', subject: id, off: 1n })),
  ];
}
