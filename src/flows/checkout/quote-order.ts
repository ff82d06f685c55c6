import { homePlace, sellerOf, smallestPayment } from '@/core/business/business';
import { type CalendarDate } from '@/core/dates/calendar-date';
import { longDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { asFront } from '@/core/front/front';
import { jsonMinor, money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { rateAge, rateBetween } from '@/core/money/rates';
import type { Choice } from '@/core/offer/choice';
import { codeKey, codeStatus } from '@/core/offer/code';
import type { Offer } from '@/core/offer/offer';
import { type PrintedOrder, printedOrder } from '@/core/offer/order';
import {
  billingOf,
  type OfferQuote,
  offerCurrencies,
  type QuoteSetting,
  quoteOffer,
  takesVouchers,
} from '@/core/offer/quote';
import type { ShownQuote } from '@/core/offer/shown';
import { addressLines } from '@/core/place/address';
import { sumRows } from '@/core/words/invoice-wording';
import { problemText } from '@/core/words/offer-wording';
import { laterText } from '@/core/words/plan-wording';
import { wordsOf } from '@/core/words/words';
import type { Business } from '@/db/businesses';
import { codeByKey, codeUses, type KeptCode } from '@/db/codes';
import { offerRevision, type PlacedOffer } from '@/db/offers';
import type { Db } from '@/db/pool';
import { ratesOn } from '@/db/rates';
import { taxesOf } from '@/db/taxes';
import type { Voucher } from '@/db/vouchers';
import { sealed, unsealed } from '@/flows/door/signing';
import { availableOf } from '@/flows/records/items';
import { typedVoucher } from '@/flows/voucher/spend-voucher';

/** How long a quote's prices and rates hold. */
const HOLDS_MINUTES = 30;

type Rate = { readonly rate: string; readonly on: CalendarDate; readonly source: string };

/** What a quote is held to: the offer's revision, and the rates that were shown. */
type Held = {
  readonly offer: string;
  readonly revision: number;
  readonly at: number;
  readonly rates: Record<string, Rate>;
};

/** An offer as it is quoted now, or as it was when a quote that still holds was given. */
export type Terms = {
  readonly offer: Offer;
  readonly revision: number;
  readonly rates: Readonly<Record<string, Rate>>;
  /** To be handed back with the choice. */
  readonly token: string;
};

/** The terms that a payer's quote is held to, for half an hour; else today's. */
export async function quoteTerms(db: Db, business: Business, placed: PlacedOffer, given: string): Promise<Terms> {
  const held = given ? unsealed<Held>('quote', given) : null;
  if (
    held?.offer === placed.id &&
    db.now.getTime() - held.at < HOLDS_MINUTES * 60_000 &&
    held.at <= db.now.getTime() + 60_000
  ) {
    const offer = held.revision === placed.revision ? placed.offer : await offerRevision(db, placed.id, held.revision);
    if (offer) return { offer, revision: held.revision, rates: held.rates, token: given };
  }
  const rates: Record<string, Rate> = {};
  const table = placed.offer.currencies.length > 0 ? await ratesOn(db, dateInZone(db.now, business.zone)) : null;
  for (const currency of placed.offer.currencies) {
    const rate = table && rateBetween(table, placed.offer.currency, currency);
    if (rate) rates[currency] = { rate, on: table.on, source: table.source };
  }
  const { offer, revision } = placed;
  const token = sealed('quote', { offer: placed.id, revision, at: db.now.getTime(), rates } satisfies Held);
  return { offer, revision, rates, token };
}

/** What can be had of the items that an offer names and that keep a stock, by stock key. */
async function stockOf(db: Db, offer: Offer): Promise<Map<string, string>> {
  const ids = offer.items.flatMap(({ itemId }) => itemId ?? []);
  return ids.length === 0 ? new Map() : new Map(Object.entries(await availableOf(db, ids)));
}

export type Quoted = {
  readonly quote: OfferQuote;
  readonly code: KeptCode | null;
  /** The gift voucher that was typed, whether it counts or not. */
  readonly voucher: Voucher | null;
  readonly stock: ReadonlyMap<string, string>;
  readonly setting: QuoteSetting;
};

/** Works out an offer for what a payer chose, against what the business has and charges now. */
export async function quoted(db: Db, business: Business, { offer, rates }: Terms, choice: Choice): Promise<Quoted> {
  const typed = offer.codes ? codeKey(choice.code) : '';
  const code = typed ? await codeByKey(db, typed) : null;
  const codeTrouble = !typed
    ? null
    : code
      ? codeStatus(code, dateInZone(db.now, business.zone), await codeUses(db, code.id, choice.email))
      : 'code-unknown';
  const stock = await stockOf(db, offer);
  const today = dateInZone(db.now, business.zone);
  const rateTo = (to: string) => rates[to]?.rate ?? null;
  const currency = offerCurrencies(offer, rateTo).includes(choice.currency) ? choice.currency : offer.currency;
  const byVoucher =
    takesVouchers(offer) && choice.voucher ? await typedVoucher(db, choice.voucher, { currency, today }) : null;
  const setting: QuoteSetting = {
    taxes: await taxesOf(db),
    pricesIncludeTax: business.pricesIncludeTax,
    home: homePlace(asFront(business, offer)),
    rateTo,
    smallest: (currency) => smallestPayment(business, currency),
    homeCurrency: business.currency,
    code,
    codeTrouble,
    voucher: byVoucher?.voucher ?? null,
    voucherTrouble: byVoucher?.trouble ?? null,
    today,
    stock,
  };
  return { quote: quoteOffer(offer, choice, setting), code, voucher: byVoucher?.voucher ?? null, stock, setting };
}

/** Sets a quote as an order to be kept or shown. */
export function orderOf(
  business: Business,
  { offer, rates }: Pick<Terms, 'offer' | 'rates'>,
  { choice, quote }: { readonly choice: Choice; readonly quote: OfferQuote },
  more: Pick<PrintedOrder, 'locale' | 'answers' | 'terms' | 'passed'>,
  now: Date,
): PrintedOrder {
  const front = asFront(business, offer);
  const lines = (address: Choice['billing']) => (address ? addressLines(address, business.country, more.locale) : []);
  const billing = billingOf(offer, choice);
  return printedOrder(
    offer,
    choice,
    quote,
    {
      ...more,
      seller: sellerOf(front),
      orderedOn: dateInZone(now, business.zone),
      payer: {
        name: choice.name.trim(),
        email: choice.email.trim(),
        address: lines(billing),
        ...(billing?.country ? { country: billing.country } : {}),
      },
      deliveryTo: offer.delivery ? lines(choice.delivery) : [],
      logoId: front.logoId,
      accent: front.accent,
      rate: quote.currency === offer.currency ? null : (rates[quote.currency] ?? null),
    },
    offer.voucher ? wordsOf(more.locale).voucher.taxedLater : wordsOf(more.locale).offer.donation,
  );
}

/** With which rate something was converted; one that is old is said to be. */
function rateNote({ rate, on }: Rate, { locale, orderedOn }: Pick<PrintedOrder, 'locale' | 'orderedOn'>): string {
  const { rateNote: note, rateIsOld } = wordsOf(locale).offer;
  const days = rateAge(on, orderedOn);
  return [note(rate, longDate(on, locale)), days === null ? '' : rateIsOld(days)].filter(Boolean).join(' ');
}

/** Writes a quote out for its reader. */
export function quoteView({ token, rates }: Terms, { quote, voucher }: Quoted, order: PrintedOrder): ShownQuote {
  const { locale, currency } = order;
  const words = wordsOf(locale);
  const text = (minor: number | bigint) => moneyText(money(BigInt(minor), currency), locale);
  const rate = quote.converted ? rates[currency] : null;
  const counted = order.lines.map((line) => ({
    label: line.quantity === '1' ? line.what : `${line.quantity} × ${line.what}`,
    text: text(line.net),
  }));
  // The first of the sums repeats what one line says already.
  const sums = sumRows(order, words).slice(order.lines.length === 1 ? 1 : 0);
  return {
    token,
    currency,
    rows: [
      ...counted,
      // A tax of nothing says nothing; free delivery does.
      ...sums
        .filter(({ label, minor }) => minor !== 0 || label === words.delivery)
        .map(({ label, minor }) => ({ label, text: minor === 0 ? words.offer.freeDelivery : text(minor) })),
    ],
    total: text(order.total),
    totalMinor: order.total,
    charged: text(quote.leftMinor),
    chargedMinor: jsonMinor(quote.leftMinor),
    problems: quote.problems.map((problem) => ({
      field: problem.field,
      words: problemText(problem, currency, locale),
    })),
    codeCounts: order.code !== '',
    voucher:
      voucher && quote.voucherMinor > 0n
        ? {
            paid: text(quote.voucherMinor),
            stays:
              voucher.availableMinor > quote.voucherMinor
                ? words.voucher.stays(text(voucher.availableMinor - quote.voucherMinor))
                : '',
          }
        : null,
    later: order.later ? laterText(order.later, order) : '',
    laterMinor: order.later?.each ?? null,
    rateNote: rate ? rateNote(rate, order) : '',
  };
}
