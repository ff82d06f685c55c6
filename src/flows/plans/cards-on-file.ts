import { randomUUID } from 'node:crypto';
import { addDays } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { REFUSAL_BRIEF } from '@/core/payment/outcome';
import type { ShownCard } from '@/core/plan/shown-card';
import { type Business, businessById } from '@/db/businesses';
import { type CardOnFile, cardById, cardsOf, insertCard, updateCard } from '@/db/cards';
import { customerById } from '@/db/customers';
import { announce } from '@/db/jobs';
import type { Actor } from '@/db/people';
import { inBusiness, readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from '../access';
import { Refusal } from '../refusal';
import { type Given, writeAuthorisation } from './authorise';

export type { CardOnFile };

/**
 * Lets the processor keep a card, and puts it on file behind the customer's others. A card that is there already is renewed
 * in its place. The authorisation is written by the caller in the same step of its own.
 *
 * @param key makes it one card, however often it is sent
 * @throws Refusal `card-not-kept`
 */
export async function keepCard(
  businessId: string,
  customerId: string,
  cardToken: string,
  key: string,
  byName: string,
): Promise<CardOnFile> {
  const { cards, clock } = services();
  const kept = await cards.keepCard(cardToken, `${businessId}.${key}`);
  if (!kept) throw new Refusal('card-not-kept');
  const now = await clock.now();
  return inBusiness(businessId, async (tx) => {
    const before = await cardsOf(tx, businessId, customerId);
    const twin = before.find(({ keptId, fingerprint }) => keptId === kept.id || fingerprint === kept.fingerprint);
    const { scheme, last4, expires, fingerprint } = kept;
    if (twin) {
      await updateCard(tx, businessId, { ...twin, last4, expires, fingerprint, state: 'good', trouble: null });
      return found(await cardById(tx, businessId, twin.id));
    }
    const id = randomUUID();
    const card = {
      id,
      customerId,
      keptId: kept.id,
      scheme,
      last4,
      expires,
      fingerprint,
      addedAt: now,
      addedBy: byName,
    };
    await insertCard(tx, businessId, card);
    await announce(tx, businessId);
    return found(await cardById(tx, businessId, id));
  });
}

/** Asks the processor what a card is now: schemes replace numbers and expiries silently. */
export async function refreshCard(businessId: string, cardId: string): Promise<void> {
  const card = await readBusiness(businessId, (db) => cardById(db, businessId, cardId));
  if (!card || card.state === 'removed') return;
  const now = await services().cards.keptCard(card.keptId);
  if (now === null || now === 'gone') return;
  if (now.last4 === card.last4 && now.expires === card.expires) return;
  await inBusiness(businessId, async (tx) => {
    const { last4, expires, fingerprint } = now;
    await updateCard(tx, businessId, { ...card, last4, expires, fingerprint, state: 'good', trouble: null });
    await announce(tx, businessId);
  });
}

/** Tries a customer's cards in this order from now on. */
export async function orderCards(
  actor: Pick<Actor, 'businessId'>,
  customerId: string,
  ids: readonly string[],
): Promise<void> {
  await inBusiness(actor.businessId, async (tx) => {
    const cards = await cardsOf(tx, actor.businessId, customerId);
    const rank = (card: CardOnFile) => (ids.includes(card.id) ? ids.indexOf(card.id) : ids.length);
    const sorted = [...cards].sort((a, b) => rank(a) - rank(b) || a.position - b.position);
    for (const [at, card] of sorted.entries()) await updateCard(tx, actor.businessId, { ...card, position: at + 1 });
    await announce(tx, actor.businessId);
  });
}

/** Takes a card away: nothing is charged to it any more, here or at the processor. */
export async function removeCard(actor: Pick<Actor, 'businessId'>, cardId: string): Promise<void> {
  const card = found(await readBusiness(actor.businessId, (db) => cardById(db, actor.businessId, cardId)));
  await inBusiness(actor.businessId, async (tx) => {
    await updateCard(tx, actor.businessId, { ...card, state: 'removed' });
    await announce(tx, actor.businessId);
  });
  await services().cards.dropCard(card.keptId);
}

/** A customer's cards as screens show them; one that ends within the policy's days says so. */
export async function customerCards(actor: Actor, customerId: string): Promise<ShownCard[]> {
  requireRight(actor, 'read');
  const now = await services().clock.now();
  return readBusiness(actor.businessId, async (db) => {
    const business = await businessById(db, actor.businessId);
    return (await cardsOf(db, actor.businessId, customerId)).map((card) => shownCard(card, business, now));
  });
}

export function shownCard(card: CardOnFile, business: Business, now: Date): ShownCard {
  const soon = addDays(dateInZone(now, business.zone), business.charging.expiryDays).slice(0, 7);
  return {
    id: card.id,
    words: `${card.scheme} ·${card.last4}, good until ${card.expires.slice(5)}/${card.expires.slice(2, 4)}`,
    state: card.state === 'good' ? 'good' : 'refusing',
    trouble: card.trouble ? REFUSAL_BRIEF[card.trouble] : '',
    ending: card.expires <= soon,
  };
}

/** Puts a card on file at the desk, with how the customer agreed to purchases being charged to it. @throws Refusal `authorise-first` */
export async function addCardAtDesk(
  actor: Actor,
  customerId: string,
  cardToken: string,
  key: string,
  given: Omit<Given, 'takenBy' | 'from'>,
): Promise<void> {
  requireRight(actor, 'ask');
  if (!given.givenBy.trim() || ((given.how === 'drawn' || given.how === 'paper') && !given.fileId))
    throw new Refusal('authorise-first');
  const card = await keepCard(actor.businessId, customerId, cardToken, key, actor.name);
  const now = await services().clock.now();
  await inBusiness(actor.businessId, async (tx) => {
    const business = await businessById(tx, actor.businessId);
    const customer = found(await customerById(tx, actor.businessId, customerId));
    const whole: Given = { ...given, takenBy: actor.name, from: 'the desk' };
    await writeAuthorisation(tx, business, customer, card, null, whole, now);
    await announce(tx, actor.businessId);
  });
}

/** Takes a card away at the desk. */
export async function removeAtDesk(actor: Actor, cardId: string): Promise<void> {
  requireRight(actor, 'ask');
  await removeCard(actor, cardId);
}

/** Puts a customer's cards into another order at the desk. */
export async function orderAtDesk(actor: Actor, customerId: string, ids: readonly string[]): Promise<void> {
  requireRight(actor, 'ask');
  await orderCards(actor, customerId, ids);
}
