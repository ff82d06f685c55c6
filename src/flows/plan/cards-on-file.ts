import { randomUUID } from 'node:crypto';
import { addDays } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { cardText, REFUSAL_BRIEF } from '@/core/payment/outcome';
import { type KeptCard, NO_END, type ShownCard } from '@/core/plan/shown-card';
import { type Business, businessById } from '@/db/businesses';
import { closeClaims } from '@/db/card-claims';
import { type CardOnFile, cardById, cardsOf, insertCard, updateCard } from '@/db/cards';
import { customerById } from '@/db/customers';
import type { Tx } from '@/db/pool';
import { type Context, desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { services } from '@/outside/services';
import { type Given, writeAuthorisation } from './authorise';
import { dropLater, settleClaim, withKeptCard } from './claim-card';

export type { CardOnFile };

/**
 * Puts a card that the processor keeps on file behind the customer's others, in the transaction that writes down how they agreed. The
 * same card kept anew takes the place of the one before, which is dropped.
 *
 * @throws Refusal `card-not-kept` where it is being dropped already
 */
export async function putOnFile(tx: Tx, customerId: string, kept: KeptCard, byName: string): Promise<CardOnFile> {
  const { id: keptId, scheme, last4, expires, fingerprint } = kept;
  if (!(await closeClaims(tx, keptId))) throw new Refusal('card-not-kept');
  const before = await cardsOf(tx, customerId);
  const twin = before.find((card) => card.keptId === keptId || card.fingerprint === fingerprint);
  if (twin) {
    if (twin.keptId !== keptId) await dropLater(tx, twin.keptId);
    await updateCard(tx, { ...twin, keptId, last4, expires, fingerprint, state: 'good', trouble: null });
    return found(await cardById(tx, twin.id));
  }
  const id = randomUUID();
  const card = { id, customerId, keptId, scheme, last4, expires, fingerprint, addedAt: tx.now, addedBy: byName };
  await insertCard(tx, card);
  return found(await cardById(tx, id));
}

/** Asks the processor what a card is now: schemes replace numbers and expiries silently. */
export async function refreshCard(ctx: Context, cardId: string): Promise<void> {
  const card = await ctx.read((db) => cardById(db, cardId));
  if (!card || card.state === 'removed') return;
  const now = await services().cards.keptCard(card.keptId);
  if (now === null || now === 'gone') return;
  if (now.last4 === card.last4 && now.expires === card.expires) return;
  await ctx.write(async (tx) => {
    const { last4, expires, fingerprint } = now;
    await updateCard(tx, { ...card, last4, expires, fingerprint, state: 'good', trouble: null });
  });
}

/** Tries a customer's cards in this order from now on. */
export async function orderCards(ctx: Context, customerId: string, ids: readonly string[]): Promise<void> {
  await ctx.write(async (tx) => {
    const cards = await cardsOf(tx, customerId);
    const rank = (card: CardOnFile) => (ids.includes(card.id) ? ids.indexOf(card.id) : ids.length);
    const sorted = [...cards].sort((a, b) => rank(a) - rank(b) || a.position - b.position);
    for (const [at, card] of sorted.entries()) await updateCard(tx, { ...card, position: at + 1 });
  });
}

/** Takes a card away: nothing is charged to it any more, here or at the processor. */
export async function removeCard(ctx: Context, cardId: string): Promise<void> {
  const card = found(await ctx.read((db) => cardById(db, cardId)));
  const key = await ctx.write(async (tx) => {
    await updateCard(tx, { ...card, state: 'removed' });
    return dropLater(tx, card.keptId);
  });
  await settleClaim(ctx, key).catch(() => undefined);
}

/** A customer's cards as screens show them; one that ends within the policy's days says so. */
export const customerCards = desk('see').read(async (db, customerId: string): Promise<ShownCard[]> => {
  const business = await businessById(db);
  return (await cardsOf(db, customerId)).map((card) => shownCard(card, business, db.now));
});

export function shownCard(card: CardOnFile, business: Business, now: Date): ShownCard {
  const soon = addDays(dateInZone(now, business.zone), business.charging.expiryDays).slice(0, 7);
  return {
    id: card.id,
    words: [
      cardText(card),
      ...(card.expires === NO_END ? [] : [`good until ${card.expires.slice(5)}/${card.expires.slice(2, 4)}`]),
    ].join(', '),
    state: card.state === 'good' ? 'good' : 'refusing',
    trouble: card.trouble ? REFUSAL_BRIEF[card.trouble] : '',
    ending: card.expires <= soon,
  };
}

/** Puts a card on file at the desk, with how the customer agreed to purchases being charged to it. @throws Refusal `authorise-first` */
export const addCardAtDesk = desk('take').run(
  async (
    ctx,
    customerId: string,
    cardToken: string,
    key: string,
    given: Omit<Given, 'takenBy' | 'from'>,
  ): Promise<void> => {
    if (!given.givenBy.trim() || ((given.how === 'drawn' || given.how === 'paper') && !given.fileId))
      throw new Refusal('authorise-first');
    await withKeptCard(ctx, { token: cardToken, key }, async (tx, kept) => {
      const customer = found(await customerById(tx, customerId));
      const card = await putOnFile(tx, customerId, kept, ctx.name);
      await writeAuthorisation(tx, customer, { card, plan: null }, { ...given, takenBy: ctx.name, from: 'the desk' });
    });
  },
);

/** Takes a card away at the desk. */
export const removeAtDesk = desk('take').run(async (ctx, cardId: string): Promise<void> => {
  await removeCard(ctx, cardId);
});

/** Puts a customer's cards into another order at the desk. */
export const orderAtDesk = desk('take').run(async (ctx, customerId: string, ids: readonly string[]): Promise<void> => {
  await orderCards(ctx, customerId, ids);
});
