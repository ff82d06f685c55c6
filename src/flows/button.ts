import { type ButtonLook, buttonPicture, buttonSnippets, wholeButton } from '@/core/offer/button';
import { businessById } from '@/db/businesses';
import { fileBytes } from '@/db/files';
import { offerById, offerHolder, type PlacedOffer, sitesOf } from '@/db/offers';
import type { Actor } from '@/db/people';
import { outsideBusiness, readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from './access';

/** The card schemes that the processor takes. */
const SCHEMES = ['Corvid', 'Lumen'];

/** A button as websites show it, by the name in its address: its drawing, or the business's own picture. */
export async function buttonDrawing(called: string): Promise<{ type: string; body: string | Uint8Array<ArrayBuffer> }> {
  const { businessId, offerId } = found(await outsideBusiness((db) => offerHolder(db, called)));
  return readBusiness(businessId, async (db) => {
    const placed = found(await offerById(db, businessId, offerId));
    const { accent } = await businessById(db, businessId);
    const look = wholeButton(placed.look, accent);
    const own = look.picture && (await fileBytes(db, businessId, look.picture.fileId));
    if (own?.type.startsWith('image/')) return { type: own.type, body: Uint8Array.from(own.bytes) };
    return { type: 'image/svg+xml; charset=utf-8', body: buttonPicture(look, SCHEMES).svg };
  });
}

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
export async function buttonPlacing(
  actor: Actor,
  placed: Pick<PlacedOffer, 'publicId' | 'look'>,
): Promise<ButtonPlacing> {
  requireRight(actor, 'read');
  const { publicUrl, sampleSite } = services();
  const { accent } = await readBusiness(actor.businessId, (db) => businessById(db, actor.businessId));
  const look = wholeButton(placed.look, accent);
  return { look, ...buttonSnippets(publicUrl, placed.publicId, look, SCHEMES), tryAt: sampleSite };
}

/** The origins whose pages may show what this address leads to in a frame; none where nothing does. */
export const framingSites = (called: string): Promise<string[]> => outsideBusiness((db) => sitesOf(db, called));
