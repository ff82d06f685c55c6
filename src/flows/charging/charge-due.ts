import { openPayments } from '@/db/payments';
import { type Context, worker } from '@/flows/door/operation';
import { noteChecking, recordOutcomes } from '@/flows/payment/record-outcome';
import { refreshCard } from '@/flows/plan/cards-on-file';
import { askToCharge } from '@/flows/plan/charge-now';
import { atMost } from '@/outside/at-most';
import { claimDue } from './claim-charges';
import { gathered } from './gathered';
import { type Sold, sendSale } from './send-sales';

/** So many charges are claimed at once, and so many sales are under way at once. */
const CLAIMED_AT_ONCE = 500;
const SENT_AT_ONCE = 48;
/** Outcomes are written down together, none held back for longer than this. */
const HELD_MS = 60;
/** One run of the job ends after so long and asks for another: a long queue of one business does not hold a worker. */
const RUN_MS = 10_000;

/** Stops after so many real milliseconds and leaves what is left to the next run; claims so many charges at once. */
export type Pace = { readonly runMs?: number; readonly atOnce?: number };

/**
 * Charges what is due, in order of date: claims many at once, sends their sales side by side, and writes the outcomes down in sets
 * as they come in. The next ones are claimed while the last ones are under way.
 *
 * @returns how many were dealt with, and whether there may be more
 */
export const chargeDue = worker().run(
  async (ctx, { runMs = RUN_MS, atOnce = CLAIMED_AT_ONCE }: Pace = {}): Promise<{ done: number; more: boolean }> => {
    const until = performance.now() + runMs;
    const outcomes = gathered<Sold>(atOnce, HELD_MS, (sold) => writeDown(ctx, sold));
    let done = 0;
    let underWay: Promise<unknown> = Promise.resolve();
    let trouble: { readonly error: unknown } | null = null;
    let open = false;
    const finish = async (): Promise<void> => {
      await underWay;
      await outcomes.rest();
      if (trouble) throw trouble.error;
      open = false;
    };
    try {
      for (;;) {
        const current = await ctx.later();
        const { claimed, sales } = await current.sets((tx) => claimDue(tx, atOnce));
        if (claimed === 0 && !open) return { done, more: false };
        // What is refused may be due again at once, with another card.
        if (claimed === 0) await finish();
        await underWay;
        await outcomes.room();
        underWay = atMost(SENT_AT_ONCE, sales, async (sale) => outcomes.add(await sendSale(current, sale))).catch(
          (error: unknown) => {
            // Told once the outcomes that did come are written down.
            trouble ??= { error };
          },
        );
        open ||= claimed > 0;
        done += claimed;
        if (performance.now() < until) continue;
        await finish();
        return { done, more: true };
      }
    } finally {
      await finish();
    }
  },
);

/** The worker's part: charges for a while, and asks for another run where there is more. */
export async function chargeForAWhile(ctx: Context): Promise<void> {
  const { more } = await chargeDue(ctx.businessId);
  if (more) await ctx.write(askToCharge);
}

async function writeDown(ctx: Context, sold: readonly Sold[]): Promise<void> {
  const later = await ctx.later();
  const said = sold.filter(({ outcome }) => outcome.kind !== 'unknown');
  const unknown = sold.flatMap(({ sale, outcome }) => (outcome.kind === 'unknown' ? [sale.payment.id] : []));
  if (said.length > 0)
    await recordOutcomes(
      later,
      said.map(({ sale: { payment }, outcome }) => ({ payment, outcome })),
    );
  if (unknown.length > 0) await later.write(async (tx) => noteChecking(tx, await openPayments(tx, unknown)));
  // The scheme has given the card another number.
  for (const { sale, outcome } of said)
    if (outcome.kind === 'accepted' && outcome.card.last4 !== sale.card.last4) await refreshCard(later, sale.card.id);
}
