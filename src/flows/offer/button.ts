import { type ButtonLook, buttonPicture, buttonSnippets, completeButton } from '@/core/button/button';
import { asFront } from '@/core/front/front';
import { businessById } from '@/db/businesses';
import { fileBytes } from '@/db/files';
import { offerById, type PlacedOffer, sitesOf } from '@/db/offers';
import { OFFER_NAME } from '@/flows/door/links';
import { anybody, byLink, desk } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { services } from '@/outside/services';

/** A button as websites show it, by the name in its address: its drawing, or the business's own picture. */
export const buttonDrawing = byLink(OFFER_NAME).read(
  async (db, offerId: string): Promise<{ type: string; body: string | Uint8Array<ArrayBuffer> }> => {
    const placed = found(await offerById(db, offerId));
    const { accent } = asFront(await businessById(db), placed.offer);
    const look = completeButton(placed.look, accent);
    const own = look.picture && (await fileBytes(db, look.picture.fileId));
    if (own?.type.startsWith('image/')) return { type: own.type, body: Uint8Array.from(own.bytes) };
    return { type: 'image/svg+xml; charset=utf-8', body: buttonPicture(look).svg };
  },
);

/** What a website needs to show a button, and where it can be tried. */
export type ButtonPlacing = {
  readonly look: ButtonLook;
  readonly html: string;
  readonly script: string;
  readonly link: string;
  /** The sample website's address; empty where there is none. */
  readonly tryAt: string;
};

/** How a button is placed. */
export const buttonPlacing = desk('see').run(
  async (ctx, placed: Pick<PlacedOffer, 'publicId' | 'look' | 'offer'>): Promise<ButtonPlacing> => {
    const { publicUrl, sampleSite } = services();
    const { accent } = asFront(await ctx.read((db) => businessById(db)), placed.offer);
    const look = completeButton(placed.look, accent);
    return { look, ...buttonSnippets(publicUrl, placed.publicId, look), tryAt: sampleSite };
  },
);

/** The origins whose pages may show what this address leads to in a frame; none where nothing does. */
export const framingSites = anybody().run(
  async (house, called: string): Promise<string[]> => house.outside((db) => sitesOf(db, called)),
);
