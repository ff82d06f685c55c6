import { sellerOf } from '@/core/business/business';
import { dateInZone } from '@/core/dates/zone';
import { stockKey } from '@/core/item/item';
import { isCurrency } from '@/core/money/currency';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { currencyOf } from '@/core/money/rates';
import { offerFaults } from '@/core/offer/offer';
import { whyNotOpen } from '@/core/offer/open';
import { priceIn, priceMinor } from '@/core/offer/price';
import { offerCurrencies, suggestedAmounts, unitPriceOf } from '@/core/offer/quote';
import { type HostedPage, pageFiles, wholePage } from '@/core/page/page';
import { isLanguage, wordsOf } from '@/core/words/words';
import { type Business, businessById } from '@/db/businesses';
import { fileBytes } from '@/db/files';
import { announce } from '@/db/jobs';
import {
  offerById,
  offerHolder,
  offerRow,
  type PageVersion,
  type PlacedOffer,
  pageVersion,
  pageVersions,
  publishPage,
  updateLook,
  updatePlaced,
} from '@/db/offers';
import { takenOrders } from '@/db/orders';
import type { Actor } from '@/db/people';
import type { Db } from '@/db/pool';
import { inBusiness, outsideBusiness, readBusiness } from '@/db/transaction';
import { type DrawnPage, drawPage, finishedPage, type PageOffer, type PageSetting } from '@/documents/page/page';
import { services } from '@/outside/services';
import { found, requireRight } from './access';
import { type Reader, readerOf } from './checkout-page';
import type { File } from './files';
import { availableOf } from './items';
import { quoteTerms } from './quote-order';
import { Refusal } from './refusal';
import { countVisit } from './visits';

export type { PageVersion };

const MOST_DRAWN = 300;

/** Pages as they were drawn, by offer, version, revision and what else they show: what is the same for everybody is drawn once. */
const drawn = new Map<string, DrawnPage>();

type Finished = {
  readonly businessId: string;
  readonly offerId: string;
  readonly html: string;
  readonly until: number;
};

/** How long a finished page is handed out again: its goal and stock may be that old, paying looks anew. */
const FINISHED_MS = 500;
const finished = new Map<string, Finished>();

/** What is handed out is made anew: an offer or a page has changed. */
export const forgetPages = (): void => finished.clear();

const settingOf = (
  business: Business,
  placed: PlacedOffer,
  locale: string,
  picture: (id: string) => string,
): PageSetting => ({
  title: placed.offer.title,
  seller: sellerOf(business),
  locale,
  currency: placed.offer.currency,
  picture,
  logo: business.logoId ? picture(business.logoId) : null,
});

/** What the page's form needs of the offer, as it stands now. */
async function pageOffer(
  db: Db,
  business: Business,
  placed: PlacedOffer,
  visitor: PageVisitor,
  now: Date,
): Promise<PageOffer> {
  const { offer } = placed;
  const { locale, country } = readerOf(visitor.acceptLanguage, visitor.lang, business);
  const { rates } = await quoteTerms(db, business, placed, '', now);
  const rateTo = (to: string) => rates[to]?.rate ?? null;
  const currencies = offerCurrencies(offer, rateTo);
  const wanted = visitor.currency || currencyOf(country);
  const currency = currencies.includes(wanted) ? wanted : offer.currency;
  const text = (price: string | null | undefined) => {
    const minor = priceMinor(price ?? '', currency);
    return minor === null ? '' : moneyText(money(minor, currency), locale);
  };
  const taken = offer.mostPayments === null ? 0 : await takenOrders(db, business.id, placed.id);
  const closed = whyNotOpen(offer, placed.state, taken, dateInZone(now, business.zone));
  const ids = offer.items.flatMap(({ itemId }) => itemId ?? []);
  const stock = ids.length > 0 ? await availableOf(db, business.id, ids) : {};
  const gone = (itemId: string | null, optionId: string | null) => {
    const left = itemId ? stock[stockKey(itemId, optionId)] : undefined;
    return left !== undefined && Number(left) < 1;
  };
  return {
    action: `/c/${placed.address || placed.publicId}`,
    kind: offer.kind,
    price: text(priceIn(offer.prices, currency, offer.currency, rateTo)),
    amounts: suggestedAmounts(offer, currency, rateTo).map((value) => ({ value, text: text(value) })),
    chosen: offer.chosen,
    ownAmount: offer.ownAmount,
    purposes: offer.purposes,
    items:
      offer.kind === 'items'
        ? offer.items.map((item) => ({
            id: item.id,
            name: item.name,
            note: item.note,
            price: text(unitPriceOf(offer, item, '', currency, rateTo)),
            least: item.least,
            most: item.most,
            soldOut: gone(item.itemId, null),
            options: item.options.map((option) => ({
              id: option.id,
              name: option.name,
              price: text(unitPriceOf(offer, item, option.id, currency, rateTo)),
              soldOut: gone(item.itemId, option.optionId),
            })),
          }))
        : [],
    fields: offer.fields,
    closed: closed ? wordsOf(locale).offer.notOpen[closed] : '',
    currency,
    currencies,
    handedOn: {
      ...(visitor.lang ? { lang: visitor.lang } : {}),
      ...(visitor.currency ? { currency: visitor.currency } : {}),
    },
  };
}

const reachedOf = ({ sums, offer }: NonNullable<Awaited<ReturnType<typeof offerRow>>>): bigint => {
  const own = sums.find(({ currency }) => currency === offer.currency);
  return BigInt((own?.paidMinor ?? 0) - (own?.refundedMinor ?? 0));
};

/** What a visitor's program and the address say of how the page is wanted. */
export type PageVisitor = Pick<Reader, 'acceptLanguage' | 'lang' | 'currency'>;

/** The published page under a name, finished; null where none is. */
export async function hostedPage(called: string, given: PageVisitor): Promise<string | null> {
  // Only what is looked at tells one page from another.
  const visitor = {
    acceptLanguage: /^[\w-]{2,12}/.exec(given.acceptLanguage.trim())?.[0] ?? '',
    lang: isLanguage(given.lang) ? given.lang : '',
    currency: isCurrency(given.currency) ? given.currency : '',
  };
  const key = `${called} ${visitor.acceptLanguage} ${visitor.lang} ${visitor.currency}`;
  const known = finished.get(key);
  const fresh = known && known.until > Date.now() ? known : await finish(called, visitor, key);
  if (!fresh) return null;
  countVisit(fresh.businessId, fresh.offerId);
  return fresh.html;
}

async function finish(called: string, visitor: PageVisitor, as: string): Promise<Finished | null> {
  const holder = await outsideBusiness((db) => offerHolder(db, called));
  if (!holder) return null;
  const { businessId, offerId } = holder;
  const now = await services().clock.now();
  return readBusiness(businessId, async (db) => {
    const placed = found(await offerRow(db, businessId, offerId));
    if (placed.placement !== 'page' || placed.published === null) return null;
    const business = await businessById(db, businessId);
    const base = `/p/${placed.publicId}/pictures`;
    const { locale } = readerOf(visitor.acceptLanguage, visitor.lang, business);
    const setting = settingOf(business, placed, locale, (id) => `${base}/${id}`);
    const key = `${offerId} ${placed.published} ${placed.revision} ${JSON.stringify(setting)}`;
    let drawing = drawn.get(key);
    if (!drawing) {
      const version = found(await pageVersion(db, businessId, offerId, placed.published));
      drawing = drawPage(wholePage(version.look, business.accent), setting, placed.offer.fields);
      if (drawn.size >= MOST_DRAWN) drawn.clear();
      drawn.set(key, drawing);
    }
    const html = finishedPage(drawing, await pageOffer(db, business, placed, visitor, now), reachedOf(placed), setting);
    const page = { businessId, offerId, html, until: Date.now() + FINISHED_MS };
    if (finished.size >= MOST_DRAWN) finished.clear();
    finished.set(as, page);
    return page;
  });
}

/** The page as it is being edited, for the desk's proof. */
export async function pageProof(actor: Actor, id: string, visitor: PageVisitor): Promise<string> {
  requireRight(actor, 'read');
  const now = await services().clock.now();
  return readBusiness(actor.businessId, async (db) => {
    const placed = found(await offerRow(db, actor.businessId, id));
    const business = await businessById(db, actor.businessId);
    const setting = settingOf(
      business,
      placed,
      readerOf(visitor.acceptLanguage, visitor.lang, business).locale,
      (file) => `/files/own/${file}`,
    );
    const offer = { ...(await pageOffer(db, business, placed, visitor, now)), action: `/proof/offer/${id}/page` };
    const drawing = drawPage(wholePage(placed.look, business.accent), setting, placed.offer.fields);
    return finishedPage(drawing, offer, reachedOf(placed), setting);
  });
}

/** A picture that a published page shows. @throws Refusal `not-found` for any other file */
export async function pagePicture(called: string, fileId: string): Promise<File> {
  const { businessId, offerId } = found(await outsideBusiness((db) => offerHolder(db, called)));
  return readBusiness(businessId, async (db) => {
    const placed = found(await offerById(db, businessId, offerId));
    const version = found(await pageVersion(db, businessId, offerId, found(placed.published)));
    const business = await businessById(db, businessId);
    const shown = pageFiles(wholePage(version.look, business.accent));
    if (fileId !== business.logoId && !shown.includes(fileId)) found(null);
    const file = found(await fileBytes(db, businessId, fileId));
    if (!file.type.startsWith('image/')) found(null);
    return file;
  });
}

/** The page under the designer's hand, with its published versions. @throws Refusal `not-found` for what is no page */
export function pageDesign(
  actor: Actor,
  id: string,
): Promise<{ placed: PlacedOffer; page: HostedPage; versions: Omit<PageVersion, 'look'>[]; accent: string }> {
  requireRight(actor, 'read');
  return readBusiness(actor.businessId, async (db) => {
    const placed = found(await offerById(db, actor.businessId, id));
    if (placed.placement !== 'page') found(null);
    const { accent } = await businessById(db, actor.businessId);
    const versions = await pageVersions(db, actor.businessId, id);
    return {
      placed,
      page: wholePage(placed.look, accent),
      versions: versions.map(({ look: _, ...version }) => version),
      accent,
    };
  });
}

/** Keeps the page while it is edited; visitors see what was published. */
export async function keepPage(actor: Actor, id: string, look: Readonly<Record<string, unknown>>): Promise<void> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  await inBusiness(actor.businessId, async (tx) => {
    const { accent } = await businessById(tx, actor.businessId);
    const touched = await updateLook(tx, actor.businessId, id, wholePage(look, accent), now);
    if (touched === 0) throw new Refusal('not-found');
    await announce(tx, actor.businessId);
  });
}

/** Publishes what is edited: visitors see it from now on, and its offer can be paid. @throws Refusal `offer-not-ready` */
export async function publishHostedPage(actor: Actor, id: string): Promise<number> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  return inBusiness(actor.businessId, async (tx) => {
    const placed = found(await offerById(tx, actor.businessId, id, true));
    if (placed.placement !== 'page') found(null);
    const faults = offerFaults(placed.offer);
    if (faults.length > 0) throw new Refusal('offer-not-ready', faults);
    const version = await publishPage(tx, actor.businessId, id, placed.look, actor.name, now);
    await updatePlaced(tx, actor.businessId, id, now);
    await announce(tx, actor.businessId);
    return version;
  }).finally(forgetPages);
}

/** Takes up a published version again, to be edited and published. */
export async function restorePage(actor: Actor, id: string, version: number): Promise<void> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  await inBusiness(actor.businessId, async (tx) => {
    const kept = found(await pageVersion(tx, actor.businessId, id, version));
    await updateLook(tx, actor.businessId, id, kept.look, now);
    await announce(tx, actor.businessId);
  });
}
