/** Offers for tests: placed, and paid by a visitor. */
import { randomUUID } from 'node:crypto';
import type { Choice } from '@/core/offer/choice';
import type { Offer, Placement } from '@/core/offer/offer';
import { checkoutPage, checkoutQuote } from '@/flows/checkout/checkout-page';
import { type OrderAttempt, takeOrder } from '@/flows/checkout/take-order';
import { beginOffer, keepOffer, offerSheet, placeOffer } from '@/flows/offer/offers';
import { asSuperuser } from './database';
import { cardToken, type House, type Workshop, workDone } from './workshop';

/** An offer that can be paid, and the sign in its address. */
export async function placedOffer(
  house: House,
  more: Partial<Offer>,
  placement: Placement = 'link',
): Promise<{ id: string; called: string }> {
  const id = await beginOffer(house.owner, placement);
  const { placed: before } = await offerSheet(house.owner, id);
  const offer = { ...before.offer, title: 'Bench days', ...more };
  await keepOffer(house.owner, id, 1, { name: offer.title, offer, look: {}, sites: [] });
  if (placement !== 'page') await placeOffer(house.owner, id);
  return { id, called: before.publicId };
}

/** What the page would send: the choice with what it was quoted; without a card's name no card. */
export async function orderAttempt(
  { standIns }: Pick<Workshop, 'standIns'>,
  called: string,
  more: Partial<Choice> = {},
  card = 'corvid-good',
): Promise<OrderAttempt> {
  const page = await checkoutPage(called, { acceptLanguage: 'en-US', lang: '', currency: '', request: '' });
  if (!page) throw new Error('Nothing is placed there');
  const choice = { ...page.begun, name: 'Ida Marsh', email: 'ida@marsh.example', ...more };
  const asked = { choice, quote: page.quote.token, request: '', locale: 'en-US' };
  const { chargedMinor, laterMinor, token } = await checkoutQuote(called, asked);
  return {
    ...asked,
    quote: token,
    chargedMinor: BigInt(chargedMinor),
    laterMinor,
    checkoutKey: randomUUID(),
    attemptKey: randomUUID(),
    cardToken: card && (await cardToken(standIns, card)),
    work: await workDone(called),
    passed: {},
  };
}

/** Somebody pays, or without a card tries to; the payment's id. */
export async function paidOrder(
  workshop: Pick<Workshop, 'admin' | 'standIns'>,
  called: string,
  more: Partial<Choice> = {},
  card = 'corvid-good',
): Promise<string> {
  const attempt = await orderAttempt(workshop, called, more, card);
  await takeOrder(called, attempt, randomUUID());
  const [row] = await asSuperuser<{ id: string }>(workshop.admin, 'select id from payments where attempt_key = $1', [
    attempt.attemptKey,
  ]);
  return row?.id ?? '';
}
