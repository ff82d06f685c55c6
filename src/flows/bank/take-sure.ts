import { randomUUID } from 'node:crypto';
import type { Proposal } from '@/core/bank/match/things';
import { bankLines } from '@/db/bank-lines';
import { type Context, desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { proposalsOf } from './proposing';
import { takeNow } from './take-match';

/** So many lines are looked at in one go, and so many are matched in it at the most. */
const MOST = 20_000;
const MOST_TAKEN = 500;

/** What happens without anybody's press: what names itself by a reference of ours, and what somebody said is always so. */
const isByItself = ({ facts }: Proposal): boolean =>
  facts.some(({ fact }) => fact === 'reference' || fact === 'always') &&
  // Somebody else may pay for a customer; another sum is another thing.
  facts.every(({ fact, agrees }) => agrees !== 'no' || fact === 'payer');

/**
 * Takes what is sure of an account's open lines, up to five hundred; how many. What somebody else took meanwhile is passed over.
 *
 * @param how by itself only what names itself; by a press all that is sure
 */
export async function takeSureOf(
  ctx: Context,
  account: string,
  currency: string,
  how: 'by-itself' | 'by-press',
): Promise<number> {
  const proposals = await ctx.read(async (db) => {
    const lines = await bankLines(db, account, currency, { states: ['open'], limit: MOST });
    return proposalsOf(db, currency, lines);
  });
  let taken = 0;
  for (const [lineId, [best]] of proposals) {
    if (taken >= MOST_TAKEN) break;
    if (best?.sure !== 'sure' || best.rest !== 0n || (how === 'by-itself' && !isByItself(best))) continue;
    const parts = best.parts.map(({ kind, id, minor }) => ({ kind, id, minor }));
    try {
      await ctx.turn((tx) =>
        takeNow(tx, lineId, {
          parts,
          rest: 'open',
          note: best.parts[0]?.label ?? '',
          always: false,
          press: randomUUID(),
        }),
      );
      taken++;
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
    }
  }
  return taken;
}

/** Takes all that is sure with one press; how many lines that were. */
export const takeSure = desk('take').run(
  (ctx, account: string, currency: string): Promise<number> => takeSureOf(ctx, account, currency, 'by-press'),
);
