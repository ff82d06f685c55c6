import { sellerOf } from '@/core/business/business';
import { dateInZone } from '@/core/dates/zone';
import { asFront } from '@/core/front/front';
import { stockKey } from '@/core/item/item';
import { isCurrency, minorDigits } from '@/core/money/currency';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { currencyOf } from '@/core/money/rates';
import { offerFaults } from '@/core/offer/offer';
import { whyNotOpen } from '@/core/offer/open';
import { priceIn, priceMinor } from '@/core/offer/price';
import { offerCurrencies, suggestedAmounts, unitPriceOf } from '@/core/offer/quote';
import { completePage, type HostedPage, pageFaults, pageFiles } from '@/core/page/page';
import { readerOf } from '@/core/words/reader';
import { isLanguage, wordsOf } from '@/core/words/words';
import { type Business, businessById } from '@/db/businesses';
import { fileBytes } from '@/db/files';
import {
  offerById,
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
import type { Db } from '@/db/pool';
import { type DrawnPage, drawPage, finishedPage, type PageOffer, type PageSetting } from '@/documents/page/page';
import { OFFER_NAME } from '@/flows/door/links';
import { byLink, desk, orNull } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import type { File } from '@/flows/file/kept-files';
import { type Finished, finished, forgetPages } from '@/flows/offer/page-cache';
import { countVisit } from '@/flows/offer/visits';
import { availableOf } from '@/flows/records/items';
import type { Reader } from './checkout-page';
import { quoteTerms } from './quote-order';

export type { PageVersion };

const MOST_DRAWN = 300;

/** Pages as they were drawn, by offer, version, revision and what else they show: what is the same for everybody is drawn once. */
const drawn = new Map<string, DrawnPage>();

/** How long a finished page is handed out again: its goal and stock may be that old, paying looks anew. */
const FINISHED_MS = 500;

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
async function pageOffer(db: Db, business: Business, placed: PlacedOffer, visitor: PageVisitor): Promise<PageOffer> {
  const { offer } = placed;
  const { locale, country } = readerOf(visitor.acceptLanguage, visitor.lang, business);
  const { rates } = await quoteTerms(db, business, placed, '');
  const rateTo = (to: string) => rates[to]?.rate ?? null;
  const currencies = offerCurrencies(offer, rateTo);
  const wanted = visitor.currency || currencyOf(country);
  const currency = currencies.includes(wanted) ? wanted : offer.currency;
  const text = (price: string | null | undefined) => {
    const minor = priceMinor(price ?? '', currency);
    return minor === null ? '' : moneyText(money(minor, currency), locale);
  };
  const taken = offer.mostPayments === null ? 0 : await takenOrders(db, placed.id);
  const closed = whyNotOpen(offer, placed.state, taken, dateInZone(db.now, business.zone));
  const ids = offer.items.flatMap(({ itemId }) => itemId ?? []);
  const stock = ids.length > 0 ? await availableOf(db, ids) : {};
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
      ...Object.fromEntries(Object.entries(visitor.passed ?? {}).map(([name, value]) => [`pass_${name}`, value])),
    },
  };
}

const reachedOf = ({ sums, offer }: NonNullable<Awaited<ReturnType<typeof offerRow>>>): bigint => {
  const own = sums.find(({ currency }) => currency === offer.currency);
  return BigInt((own?.paidMinor ?? 0) - (own?.refundedMinor ?? 0));
};

/** What a visitor's program and the address say of how the page is wanted. */
export type PageVisitor = Pick<Reader, 'acceptLanguage' | 'lang' | 'currency'> & {
  /** What the address passes through to the payment. */
  readonly passed?: Readonly<Record<string, string>>;
};

/** The published page under a name, finished; null where none is. */
export async function hostedPage(called: string, given: PageVisitor): Promise<string | null> {
  // Only what is looked at tells one page from another.
  const visitor = {
    acceptLanguage: /^[\w-]{2,12}/.exec(given.acceptLanguage.trim())?.[0] ?? '',
    lang: isLanguage(given.lang) ? given.lang : '',
    currency: isCurrency(given.currency) ? given.currency : '',
    passed: given.passed ?? {},
  };
  const key = `${called} ${visitor.acceptLanguage} ${visitor.lang} ${visitor.currency}`;
  // What somebody's own address passes through is in nobody else's page.
  const shared = Object.keys(visitor.passed).length === 0;
  const known = shared ? finished.get(key) : undefined;
  const fresh = known && known.until > performance.now() ? known : await finish(called, visitor);
  if (!fresh) return null;
  if (shared && fresh !== known) {
    if (finished.size >= MOST_DRAWN) finished.clear();
    finished.set(key, fresh);
  }
  countVisit(fresh.businessId, fresh.offerId);
  return fresh.html;
}

const finish = orNull(
  byLink(OFFER_NAME).read(async (db, offerId: string, visitor: PageVisitor): Promise<Finished> => {
    const placed = found(await offerRow(db, offerId));
    if (placed.placement !== 'page') found(null);
    const published = found(placed.published);
    const business = asFront(await businessById(db), placed.offer);
    const base = `/p/${placed.publicId}/pictures`;
    const { locale } = readerOf(visitor.acceptLanguage, visitor.lang, business);
    const setting = settingOf(business, placed, locale, (id) => `${base}/${id}`);
    const key = `${offerId} ${published} ${placed.revision} ${JSON.stringify(setting)}`;
    let drawing = drawn.get(key);
    if (!drawing) {
      const version = found(await pageVersion(db, offerId, published));
      drawing = drawPage(completePage(version.look, business.accent), setting, placed.offer.fields);
      if (drawn.size >= MOST_DRAWN) drawn.clear();
      drawn.set(key, drawing);
    }
    const html = finishedPage(drawing, await pageOffer(db, business, placed, visitor), reachedOf(placed), setting);
    return { businessId: db.businessId, offerId, html, until: performance.now() + FINISHED_MS };
  }),
);

/** The page as it is being edited, for the desk's proof. */
export const pageProof = desk('see').read(async (db, id: string, visitor: PageVisitor): Promise<string> => {
  const placed = found(await offerRow(db, id));
  const business = asFront(await businessById(db), placed.offer);
  const setting = settingOf(
    business,
    placed,
    readerOf(visitor.acceptLanguage, visitor.lang, business).locale,
    (file) => `/files/own/${file}`,
  );
  const offer = { ...(await pageOffer(db, business, placed, visitor)), action: `/proof/offer/${id}/page` };
  const drawing = drawPage(completePage(placed.look, business.accent), setting, placed.offer.fields);
  return finishedPage(drawing, offer, reachedOf(placed), setting);
});

/** A picture that a published page shows. @throws Refusal `not-found` for any other file */
export const pagePicture = byLink(OFFER_NAME).read(async (db, offerId: string, fileId: string): Promise<File> => {
  const placed = found(await offerById(db, offerId));
  const version = found(await pageVersion(db, offerId, found(placed.published)));
  const business = asFront(await businessById(db), placed.offer);
  const shown = pageFiles(completePage(version.look, business.accent));
  if (fileId !== business.logoId && !shown.includes(fileId)) found(null);
  const file = found(await fileBytes(db, fileId));
  if (!file.type.startsWith('image/')) found(null);
  return file;
});

/** The page under the designer's hand, with its published versions. @throws Refusal `not-found` for what is no page */
export const pageDesign = desk('see').read(
  async (
    db,
    id: string,
  ): Promise<{ placed: PlacedOffer; page: HostedPage; versions: Omit<PageVersion, 'look'>[]; accent: string }> => {
    const placed = found(await offerById(db, id));
    if (placed.placement !== 'page') found(null);
    const { accent } = asFront(await businessById(db), placed.offer);
    const versions = await pageVersions(db, id);
    return {
      placed,
      page: completePage(placed.look, accent),
      versions: versions.map(({ look: _, ...version }) => version),
      accent,
    };
  },
);

/** Keeps the page while it is edited; visitors see what was published. */
export const keepPage = desk('ask').write(
  async (tx, id: string, look: Readonly<Record<string, unknown>>): Promise<void> => {
    const { accent } = await businessById(tx);
    const touched = await updateLook(tx, id, completePage(look, accent));
    if (touched === 0) throw new Refusal('not-found');
  },
);

/** Publishes what is edited: visitors see it from now on, and its offer can be paid. @throws Refusal `offer-not-ready` */
export const publishHostedPage = desk('ask').run(async (ctx, id: string): Promise<number> => {
  return ctx
    .write(async (tx) => {
      const placed = found(await offerById(tx, id, true));
      if (placed.placement !== 'page') found(null);
      const { accent } = asFront(await businessById(tx), placed.offer);
      const page = completePage(placed.look, accent);
      const faults = [...offerFaults(placed.offer), ...pageFaults(page, minorDigits(placed.offer.currency))];
      if (faults.length > 0) throw new Refusal('offer-not-ready', faults);
      const version = await publishPage(tx, id, placed.look, ctx.name);
      await updatePlaced(tx, id);
      return version;
    })
    .finally(forgetPages);
});

/** Takes up a published version again, to be edited and published. */
export const restorePage = desk('ask').write(async (tx, id: string, version: number): Promise<void> => {
  const kept = found(await pageVersion(tx, id, version));
  await updateLook(tx, id, kept.look);
});
