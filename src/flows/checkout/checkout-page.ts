import { sellerOf, smallestPayment } from '@/core/business/business';
import { addDays } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { asFront } from '@/core/front/front';
import type { Seller } from '@/core/invoice/printed';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { currencyOf } from '@/core/money/rates';
import { blankChoice, type Choice } from '@/core/offer/choice';
import { linkPicture } from '@/core/offer/link-look';
import type { Offer } from '@/core/offer/offer';
import { type NotOpen, whyNotOpen } from '@/core/offer/open';
import { priceMinor } from '@/core/offer/price';
import { offerCurrencies, ownSpan, suggestedAmounts, takesVouchers, unitPriceOf, zoneFor } from '@/core/offer/quote';
import { begunRecurring, rhythmKey } from '@/core/offer/repeat';
import type { ShownOffer, ShownQuote } from '@/core/offer/shown';
import { MOST_GIFT_DAYS } from '@/core/voucher/gift';
import { readerOf } from '@/core/words/reader';
import { wordsOf } from '@/core/words/words';
import { type Business, businessById } from '@/db/businesses';
import { offerById, type PlacedOffer } from '@/db/offers';
import { takenOrders } from '@/db/orders';
import type { Db } from '@/db/pool';
import { type Request, requestById, updateRequest } from '@/db/requests';
import { termsById } from '@/db/terms';
import { hasVouchers } from '@/db/vouchers';
import { OFFER_NAME } from '@/flows/door/links';
import { byLink, orNull } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { servedPath } from '@/flows/file/served-file';
import { lockedChoice, requestOf } from '@/flows/offer/requests';
import { countVisit } from '@/flows/offer/visits';
import { payerAgreement } from '@/flows/plan/agreement';
import { countryList } from '@/outside/places';
import { services } from '@/outside/services';
import { orderOf, quoted, quoteTerms, quoteView, type Terms } from './quote-order';

/** All that the checkout shows of an offer: nothing that is only the business's own. */
export type CheckoutView = ShownOffer & {
  /** The name that it is opened under now; others that it had lead there. */
  readonly called: string;
  readonly publicId: string;
  /** Its whole address. */
  readonly address: string;
  readonly locale: string;
  readonly title: string;
  readonly description: string;
  readonly seller: Seller;
  readonly logo: string | null;
  /** Whether a picture of its own stands over it. */
  readonly picture: boolean;
  readonly accent: string;
  readonly turnedBack: string;
  readonly notOpen: NotOpen | null;
  /** A prefilled request: what it fills in, and whether that is fixed. */
  readonly request: {
    readonly sign: string;
    readonly toName: string;
    readonly locked: boolean;
    readonly filled: Partial<Choice>;
    readonly state: Request['state'];
  } | null;
  readonly begun: Choice;
  readonly quote: ShownQuote;
};

/** What a payer's form begins with. */
function begunChoice(offer: Offer, currency: string, terms: Terms, country: string): Choice {
  const rateTo = (to: string) => terms.rates[to]?.rate ?? null;
  const amounts = suggestedAmounts(offer, currency, rateTo);
  const empty = { lines: [], city: '', region: '', postalCode: '', country };
  return {
    ...blankChoice(currency),
    amount: amounts[offer.chosen] ?? '',
    purpose: offer.purposes.length === 1 ? (offer.purposes[0] ?? '') : '',
    items: offer.items.map((item) => ({
      id: item.id,
      optionId: item.options.length === 1 ? (item.options[0]?.id ?? '') : '',
      quantity: String(item.least),
    })),
    // Where something is delivered the bill goes there too, unless somebody says otherwise.
    billing: offer.billing === 'no' || offer.delivery ? null : empty,
    delivery: offer.delivery ? { ...empty, country: zoneFor(offer, country) ? country : '' } : null,
    repeat: begunRecurring(offer),
  };
}

/** The form with what was chosen on a hosted page: amounts, purposes, items and answers, by the names of its form. */
function presetChoice(fresh: Choice, preset: Readonly<Record<string, string>>): Choice {
  const answers = Object.entries(preset).flatMap(([name, text]) =>
    name.startsWith('a_') && text ? [[name.slice(2), text.slice(0, 1000)] as const] : [],
  );
  return {
    ...fresh,
    amount: preset.own?.trim() || preset.amount || fresh.amount,
    purpose: preset.purpose ?? fresh.purpose,
    items: fresh.items.map((item) => ({
      ...item,
      quantity: preset[`q_${item.id}`] ?? item.quantity,
      optionId: preset[`o_${item.id}`] ?? item.optionId,
    })),
    answers: Object.fromEntries(answers),
  };
}

/** What the checkout shows of an offer that is at hand, placed or not. @param request the prefilled request that opened it */
export async function offerView(
  db: Db,
  own: Business,
  placed: PlacedOffer,
  { request, reader }: { readonly request: Request | null; readonly reader: Reader },
): Promise<CheckoutView> {
  const business = asFront(own, placed.offer);
  const { locale, country } = readerOf(reader.acceptLanguage, reader.lang, business);
  const terms = await quoteTerms(db, business, placed, '');
  const { offer } = terms;
  const rateTo = (to: string) => terms.rates[to]?.rate ?? null;
  const smallest = (code: string) => smallestPayment(business, code);
  const currencies = offerCurrencies(offer, rateTo);
  const wanted = request?.filled.currency ?? (reader.currency || currencyOf(country));
  const currency = currencies.includes(wanted) ? wanted : offer.currency;
  const countries = offer.delivery || offer.billing !== 'no' ? countryList(locale) : [];
  const here = country || business.country;
  const fresh = begunChoice(offer, currency, terms, countries.some(({ code }) => code === here) ? here : '');
  const chosen = presetChoice(fresh, reader.preset ?? {});
  const begun = request ? lockedChoice(chosen, { ...request.filled, currency }) : chosen;
  const all = await quoted(db, business, terms, begun);
  const taken = offer.mostPayments === null ? 0 : await takenOrders(db, placed.id);
  const text = (price: string | null) => {
    const minor = priceMinor(price ?? '', currency);
    return minor === null ? '' : moneyText(money(minor, currency), locale);
  };
  const leftOf = (key: string): number | null => {
    const there = all.stock.get(key);
    return there === undefined ? null : Math.max(0, Math.floor(Number(there)));
  };
  const order = orderOf(
    business,
    terms,
    { choice: begun, quote: all.quote },
    { locale, answers: [], terms: null, passed: {} },
    db.now,
  );
  const today = dateInZone(db.now, business.zone);
  const printedTerms = offer.termsId ? await termsById(db, offer.termsId) : null;
  return {
    called: placed.address || placed.publicId,
    publicId: placed.publicId,
    address: `${services().publicUrl}/c/${placed.address || placed.publicId}`,
    locale,
    title: offer.title,
    description: offer.description,
    kind: offer.kind,
    seller: sellerOf(business),
    logo: business.logoId,
    picture: placed.placement === 'link' && linkPicture(placed.look) !== null,
    accent: business.accent,
    currencies,
    items: offer.items.map((item) => ({
      id: item.id,
      name: item.name,
      note: item.note,
      price: text(unitPriceOf(offer, item, '', currency, rateTo)),
      least: item.least,
      most: item.most,
      left: item.itemId && item.options.length === 0 ? leftOf(item.itemId) : null,
      options: item.options.map((option) => ({
        id: option.id,
        name: option.name,
        price: text(unitPriceOf(offer, item, option.id, currency, rateTo)),
        left: item.itemId && option.optionId ? leftOf(`${item.itemId}/${option.optionId}`) : null,
      })),
    })),
    amounts: suggestedAmounts(offer, currency, rateTo).map((value) => ({ value, text: text(value) })),
    ownAmount: offer.ownAmount,
    ownSpan: offer.ownAmount ? spanWords(ownSpan(offer, currency, { rateTo, smallest }), currency, locale) : '',
    usualIn: Object.fromEntries(
      countries.flatMap(({ code }) => (currencies.includes(currencyOf(code)) ? [[code, currencyOf(code)]] : [])),
    ),
    purposes: offer.purposes,
    codes: offer.codes,
    takesVoucher: takesVouchers(offer) && (await hasVouchers(db)),
    sellsVoucher: offer.voucher ? { from: today, to: addDays(today, MOST_GIFT_DAYS) } : null,
    delivers: offer.delivery !== null,
    countries,
    deliveredTo: countries.flatMap(({ code }) => (offer.delivery && zoneFor(offer, code) ? code : [])),
    tip: offer.tip,
    phone: offer.phone,
    billing: offer.billing,
    message: offer.message,
    fields: offer.fields,
    terms: printedTerms && { name: printedTerms.name, text: printedTerms.text },
    repeat: await shownRecurring(db, business, offer, locale),
    turnedBack: offer.turnedBack,
    notOpen: whyNotOpen(offer, placed.state, taken, dateInZone(db.now, business.zone)),
    request: request && {
      sign: reader.request,
      toName: request.toName,
      locked: request.locked,
      filled: request.filled,
      state: request.state,
    },
    begun,
    quote: quoteView(terms, all, order),
  };
}

/** A span of sums in words; empty where it bounds nothing. */
function spanWords({ least, most }: ReturnType<typeof ownSpan>, currency: string, locale: string): string {
  const text = (minor: bigint) => moneyText(money(minor, currency), locale);
  if (least <= 1n && most === null) return '';
  return wordsOf(locale).offer.problems['amount-span'](text(least), most === null ? '' : text(most));
}

/** How often an offer can be paid, in the payer's words; null where everybody pays once. */
async function shownRecurring(
  db: Db,
  business: Business,
  { repeat, title }: Pick<Offer, 'repeat' | 'title'>,
  locale: string,
): Promise<ShownOffer['repeat']> {
  if (!repeat || repeat.rhythms.length === 0) return null;
  const words = wordsOf(locale).offer;
  const choices = repeat.rhythms.map((one) => ({ value: rhythmKey(one), text: words.rhythm(one.unit, one.every) }));
  return {
    choices: repeat.once ? [{ value: '', text: words.once }, ...choices] : choices,
    agreement: (await payerAgreement(db, business, locale, title)).text,
    note: words.repeatNote,
  };
}

/** Who opens the checkout, and how. */
export type Reader = {
  readonly acceptLanguage: string;
  readonly lang: string;
  readonly currency: string;
  /** The sign of a prefilled request; empty for none. */
  readonly request: string;
  /** What was chosen on a hosted page already. */
  readonly preset?: Readonly<Record<string, string>>;
};

/** What the checkout of an offer shows; null where nothing is placed under this name. */
export const checkoutPage = orNull(
  byLink(OFFER_NAME).read(async (db, offerId: string, reader: Reader): Promise<CheckoutView> => {
    const placed = found(await offerById(db, offerId));
    found(placed.placedAt);
    // A page has been counted where it was seen.
    if (placed.placement !== 'page') countVisit(db.businessId, placed.id);
    const business = await businessById(db);
    const id = reader.request ? requestOf(reader.request) : null;
    const request = id ? await requestById(db, id) : null;
    const own = request?.offerId === placed.id ? request : null;
    return offerView(db, business, placed, { request: own, reader });
  }),
);

/** Works out the sum for what a payer chose, in their words. */
export const checkoutQuote = byLink(OFFER_NAME).read(
  async (
    db,
    offerId: string,
    asked: { choice: Choice; quote: string; request: string; locale: string },
  ): Promise<ShownQuote> => {
    const placed = found(await offerById(db, offerId));
    found(placed.placedAt);
    const business = await businessById(db);
    return quoteOf(db, business, placed, asked);
  },
);

/** The same of an offer that is at hand, placed or not. */
export async function quoteOf(
  db: Db,
  business: Business,
  placed: PlacedOffer,
  asked: { choice: Choice; quote: string; request: string; locale: string },
): Promise<ShownQuote> {
  const terms = await quoteTerms(db, business, placed, asked.quote);
  const id = asked.request ? requestOf(asked.request) : null;
  const request = id ? await requestById(db, id) : null;
  const choice =
    request?.locked && request.offerId === placed.id ? lockedChoice(asked.choice, request.filled) : asked.choice;
  const all = await quoted(db, business, terms, choice);
  const more = {
    locale: wordsOf(asked.locale) ? asked.locale : business.paperLocale,
    answers: [],
    terms: null,
    passed: {},
  };
  return quoteView(terms, all, orderOf(business, terms, { choice, quote: all.quote }, more, db.now));
}

/** The payer's page says that somebody looks at their request: noted the first time. */
export const noteRequestSeen = byLink(OFFER_NAME).write(async (tx, _offerId: string, sign: string): Promise<void> => {
  const id = requestOf(sign);
  if (id) await updateRequest(tx, id, 'seen');
});

/** Where the picture over a payment link's page is fetched. @throws Refusal `not-found` without one */
export const offerPicturePath = byLink(OFFER_NAME).run(async (ctx, offerId: string): Promise<string> => {
  const placed = found(await ctx.read((db) => offerById(db, offerId)));
  return servedPath(ctx, found(placed.placement === 'link' ? linkPicture(placed.look) : null));
});

/** Where the picture that stands for the business on an offer's page is fetched. */
export const offerLogoPath = byLink(OFFER_NAME).run(async (ctx, offerId: string): Promise<string> => {
  const { logoId } = await ctx.read(async (db) =>
    asFront(await businessById(db), found(await offerById(db, offerId)).offer),
  );
  return servedPath(ctx, found(logoId));
});
