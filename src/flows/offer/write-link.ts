/** A payment link made and opened at once, by another program. */

import { businessById } from '@/db/businesses';
import { deleteUnusedOffer } from '@/db/offers';
import { desk } from '@/flows/door/operation';
import { beginOffer, keepOffer, placeOffer } from './offers';

/**
 * Makes a link over a fixed sum and opens it; what cannot be opened leaves nothing behind. Returns its id.
 *
 * @throws Refusal `offer-not-ready` with the places, `cards-not-open`
 */
export const writeLink = desk('ask').run(
  async (
    ctx,
    {
      title,
      price,
      description,
      lastOn,
      ...asked
    }: {
      readonly title: string;
      readonly price: string;
      readonly currency: string;
      readonly description: string;
      readonly lastOn: string;
    },
  ): Promise<string> => {
    const business = await ctx.read(businessById);
    const currency = asked.currency || business.currency;
    const id = await beginOffer(ctx.actor, 'link');
    try {
      const offer = { kind: 'sum' as const, title, description, lastOn, currency, prices: { [currency]: price } };
      await keepOffer(ctx.actor, id, 1, { name: title, offer, look: {}, sites: [] });
      await placeOffer(ctx.actor, id);
    } catch (error) {
      await ctx.write((tx) => deleteUnusedOffer(tx, id));
      throw error;
    }
    return id;
  },
);
