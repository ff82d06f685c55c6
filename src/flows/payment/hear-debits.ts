import { canReturn, type ToldReturn } from '@/core/payment/debit';
import { isUuid } from '@/core/uuid';
import { debitsOf, debitsToAskAbout } from '@/db/payments';
import { knownRefunds } from '@/db/refunds';
import type { Context } from '@/flows/door/operation';
import { atMost } from '@/outside/at-most';
import { services } from '@/outside/services';
import { recordReturn } from './record-return';
import { askAbout } from './settle-payment';

const ASKED_AT_ONCE = 16;
/** So many are asked about in one look; the next one goes on. */
const MOST = 2000;

/**
 * Finds out what became of bank debits: of those whose day has come whether they are paid, and of paid ones which came back. While the
 * processor does not answer nothing is lost: it is asked again.
 */
export async function lookForDebits(ctx: Context): Promise<void> {
  const current = await ctx.later();
  const due = await current.read((db) => debitsToAskAbout(db, MOST));
  await atMost(ASKED_AT_ONCE, due, (payment) => askAbout(current, payment).then(() => undefined));
  const told = await services().cards.returns(`${ctx.businessId}.`);
  if (!told || told.length === 0) return;
  const later = await ctx.later();
  for (const one of await newsOf(later, told)) await later.turn((tx) => recordReturn(tx, one));
}

/** What of it is not written down yet, of debits that are here. */
async function newsOf(ctx: Context, told: readonly ToldReturn[]): Promise<ToldReturn[]> {
  return ctx.read(async (db) => {
    const known = await knownRefunds(
      db,
      told.map(({ id }) => id),
    );
    const fresh = told.filter(({ id, paymentId }) => !known.has(id) && isUuid(paymentId));
    const payments = new Map(
      (
        await debitsOf(
          db,
          fresh.map(({ paymentId }) => paymentId),
        )
      ).map((payment) => [payment.id, payment]),
    );
    return fresh.filter((one) => {
      const payment = payments.get(one.paymentId);
      return payment?.state === 'paid' && canReturn(one, payment);
    });
  });
}
