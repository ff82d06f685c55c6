/** Offers for tests: placed, and paid by a visitor. */
import { randomUUID } from 'node:crypto';
import type { Choice } from '@/core/offer/choice';
import type { Offer, Placement } from '@/core/offer/offer';
import { checkoutPage, checkoutQuote } from '@/flows/checkout/checkout-page';
import { takeOrder } from '@/flows/checkout/take-order';
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
  await keepOffer(house.owner, id, 1, { name: 'Bench days', offer, look: {}, sites: [] });
  if (placement !== 'page') await placeOffer(house.owner, id);
  return { id, called: before.publicId };
}

/** Somebody pays, or without a card tries to; the payment's id. */
export async function paidOrder(
  { admin, standIns }: Pick<Workshop, 'admin' | 'standIns'>,
  called: string,
  more: Partial<Choice> = {},
  card = 'corvid-good',
): Promise<string> {
  const page = await checkoutPage(called, { acceptLanguage: 'en-US', lang: '', currency: '', request: '' });
  if (!page) throw new Error('Nothing is placed there');
  const choice = { ...page.begun, name: 'Ida Marsh', email: 'ida@marsh.example', ...more };
  const asked = { choice, quote: page.quote.token, request: '', locale: 'en-US' };
  const { chargedMinor, laterMinor } = await checkoutQuote(called, asked);
  const attemptKey = randomUUID();
  await takeOrder(
    called,
    {
      ...asked,
      chargedMinor: BigInt(chargedMinor),
      laterMinor,
      checkoutKey: randomUUID(),
      attemptKey,
      cardToken: card && (await cardToken(standIns, card)),
      work: await workDone(called),
      passed: {},
    },
    randomUUID(),
  );
  const [row] = await asSuperuser<{ id: string }>(admin, 'select id from payments where attempt_key = $1', [
    attemptKey,
  ]);
  return row?.id ?? '';
}
