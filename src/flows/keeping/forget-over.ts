/** Every night: what nobody needs any more is forgotten, papers of erased customers go with their time, closed businesses with theirs. */
import { dateInZone } from '@/core/dates/zone';
import { ERASED_NAME, edgesOf, keepingRule, papersKeptFrom } from '@/core/keeping/keeping';
import { ANSWER_HOURS } from '@/core/program/key';
import { businessById } from '@/db/businesses';
import { customersWithPapers, eraseBusiness, forgetOld, forgetPapers, keepingState } from '@/db/keeping';
import { forgetNews } from '@/db/news';
import { forgetAnswers } from '@/db/program-keys';
import type { Context } from '@/flows/door/operation';

/** Forgets what is over by now; done twice it does nothing more. */
export async function forgetWhatIsOver(ctx: Context): Promise<void> {
  const erased = await ctx.turn(async (tx) => {
    const { zone } = await businessById(tx);
    return eraseBusiness(tx, dateInZone(tx.now, zone));
  });
  if (erased) return;
  const { ids, before } = await ctx.turn(async (tx) => {
    const { country, zone } = await businessById(tx);
    const rule = keepingRule((await keepingState(tx)).kept, country);
    await forgetOld(tx, edgesOf(tx.now, rule), ERASED_NAME);
    await forgetNews(tx);
    await forgetAnswers(tx, new Date(tx.now.getTime() - ANSWER_HOURS * 3_600_000));
    return {
      ids: (await customersWithPapers(tx)).map(({ id }) => id),
      before: papersKeptFrom(dateInZone(tx.now, zone), rule),
    };
  });
  for (const id of ids) await ctx.turn((tx) => forgetPapers(tx, id, before, ERASED_NAME));
}
