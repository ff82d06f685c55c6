import { MAIL_ADDRESS } from '../customer/mail-address';
import type { CalendarDate } from '../dates/calendar-date';
import { typedMinor, typedShare } from '../invoice/read-paper';
import { minorDigits } from '../money/currency';
import { powerOfTen } from '../money/decimal';
import { typedDecimal } from '../money/typed';
import { type Address, isNoAddress, isPostalCodeNeeded } from '../place/address';
import { RuleError } from '../rule-error';
import type { Discount, Tally, TallyDocument, TallyLine } from '../tally/document';
import { lineTally, percentOf, tally } from '../tally/tally';
import { type BusinessTax, placeTaxes } from '../tax/business-tax';
import type { Place } from '../tax/tax-rules';
import { type GiftProblem, giftProblems } from '../voucher/gift';
import { type Spendable, type VoucherProblem, voucherPart } from '../voucher/voucher';
import type { Choice } from './choice';
import type { CodeProblem, DiscountCode } from './code';
import { type AnswerProblem, answerProblem } from './fields';
import type { DeliveryZone, Offer, OfferItem, PriceTable } from './offer';
import { priceIn, priceMinor, type RateTo } from './price';
import { chosenRhythm, type OfferRhythm } from './repeat';

/** What a quote is worked out against. */
export type QuoteSetting = {
  readonly taxes: readonly BusinessTax[];
  readonly pricesIncludeTax: boolean;
  /** The business's own place: who gives no address is taxed as if there. */
  readonly home: Place;
  readonly rateTo: RateTo;
  /** The business's smallest payment, in minor units of `homeCurrency`. */
  /** The business's smallest payment in a currency, in minor units. */
  readonly smallest: (currency: string) => bigint;
  readonly homeCurrency: string;
  /** The code as kept, and whether it counts today; both null where none was typed. */
  readonly code: DiscountCode | null;
  readonly codeTrouble: CodeProblem | null;
  /** The gift voucher as it is now, and why it cannot be used; none where none was typed. */
  readonly voucher?: Spendable | null;
  readonly voucherTrouble?: VoucherProblem | null;
  /** The business's day. */
  readonly today?: CalendarDate;
  /** What is available of items that keep a stock, by stock key, in units. */
  readonly stock: ReadonlyMap<string, string>;
};

export type QuoteProblemCode =
  | CodeProblem
  | AnswerProblem
  | 'amount-needed'
  | 'amount-span'
  | 'amount-suggested'
  | 'purpose-needed'
  | 'nothing-chosen'
  | 'quantity-span'
  | 'option-needed'
  | 'sold-out'
  | 'no-price'
  | 'country-needed'
  | 'no-delivery-there'
  | 'tip-wrong'
  | 'too-small'
  | 'name-needed'
  | 'email-needed'
  | 'phone-needed'
  | 'terms-needed'
  | 'repeat-needed'
  | 'agree-needed'
  | VoucherProblem
  | 'voucher-not-repeated'
  | GiftProblem;

/** What stands in the way of paying; `field` is the place, `values` what the words name, amounts in minor units. */
export type QuoteProblem = {
  readonly field: string;
  readonly code: QuoteProblemCode;
  readonly values?: readonly (bigint | number | string)[];
};

/** A line of the quote beside its place in the tally: what is bought, and what leaves which stock. */
export type QuoteLine = {
  readonly what: string;
  readonly note: string;
  readonly quantity: string;
  readonly unitPrice: string;
  readonly itemId: string | null;
  readonly optionId: string | null;
};

/** An offer worked out for one payer; amounts in minor units of `currency`. */
export type OfferQuote = {
  readonly currency: string;
  /** Whether a price in it, or the delivery, was converted: nothing given by hand is. */
  readonly converted: boolean;
  readonly document: TallyDocument;
  readonly tally: Tally;
  readonly lines: readonly QuoteLine[];
  readonly zone: DeliveryZone | null;
  readonly tipMinor: bigint;
  /** All that is paid: the total and the tip. */
  readonly chargedMinor: bigint;
  /** What a gift voucher pays of it, and what is left for the card. */
  readonly voucherMinor: bigint;
  readonly leftMinor: bigint;
  readonly problems: readonly QuoteProblem[];
  /** What each later payment comes to where it is repeated; null where it is paid once, or the first is the last. */
  readonly later: LaterQuote | null;
};

/** A later payment of a repeated one: worked out anew, without what is for the first only. Minor units. */
export type LaterQuote = {
  readonly rhythm: OfferRhythm;
  /** How many there are; null where it goes on. */
  readonly count: number | null;
  readonly eachMinor: bigint;
  readonly deliveryMinor: bigint | null;
};

/** The currencies in which an offer can be paid: its own, and further ones that have prices or a rate. */
export const offerCurrencies = (offer: Offer, rateTo: RateTo): string[] => [
  offer.currency,
  ...offer.currencies.filter(
    (currency) => currency !== offer.currency && (ownPrices(offer, currency) || rateTo(currency) !== null),
  ),
];

function ownPrices(offer: Offer, currency: string): boolean {
  if (offer.kind === 'sum') return Boolean(offer.prices[currency]);
  if (offer.kind !== 'items') return false;
  return offer.items.every(
    ({ prices, options }) =>
      Boolean(prices[currency]) || (options.length > 0 && options.every((option) => option.prices[currency])),
  );
}

/** The suggested amounts in a currency, decimals: converted ones rounded to a whole main unit, as one suggests them. */
export function suggestedAmounts(offer: Offer, currency: string, rateTo: RateTo): string[] {
  if (currency === offer.currency) return offer.amounts.map((amount) => typedDecimal(amount) ?? amount);
  const unit = powerOfTen(minorDigits(currency));
  return offer.amounts.flatMap((amount) => {
    const price = priceIn({ [offer.currency]: amount }, currency, offer.currency, rateTo);
    const minor = price === null ? null : priceMinor(price, currency);
    if (minor === null) return [];
    const whole = (minor + unit / 2n) / unit;
    return [(whole > 0n ? whole : 1n).toString()];
  });
}

/** The unit price of an item in an option; the option's own prices hold before the item's. */
export function unitPriceOf(
  offer: Offer,
  item: OfferItem,
  optionId: string,
  currency: string,
  rateTo: RateTo,
): string | null {
  const option = item.options.find(({ id }) => id === optionId);
  const prices: PriceTable = option && Object.keys(option.prices).length > 0 ? option.prices : item.prices;
  return priceIn(prices, currency, offer.currency, rateTo);
}

/** Where a payer is taxed: the delivery address if something is delivered, else the billing address; at home if neither is known. */
function payerPlace(offer: Offer, choice: Choice, home: Place): Place {
  const at = offer.delivery ? (choice.delivery ?? choice.billing) : choice.billing;
  if (!at?.country) return home;
  return {
    country: at.country,
    ...(at.region ? { region: at.region } : {}),
    ...(at.postalCode ? { postalCode: at.postalCode } : {}),
  };
}

type Read = { lines: QuoteLine[]; taxed: TallyLine[]; problems: QuoteProblem[] };

function readItems(offer: Offer, choice: Choice, currency: string, setting: QuoteSetting, place: Place): Read {
  const lines: QuoteLine[] = [];
  const taxed: TallyLine[] = [];
  const problems: QuoteProblem[] = [];
  const asked = new Map<string, number>();
  for (const item of offer.items) {
    const field = `items.${item.id}`;
    const chosen = choice.items.find(({ id }) => id === item.id);
    const typed = chosen ? chosen.quantity.trim() : String(item.least);
    const count = /^\d{1,6}$/.test(typed) ? Number(typed) : Number.NaN;
    if (!(count >= item.least && count <= item.most)) {
      problems.push({ field, code: 'quantity-span', values: [item.least, item.most] });
      continue;
    }
    if (count === 0) continue;
    const option = item.options.find(({ id }) => id === chosen?.optionId);
    if (item.options.length > 0 && !option) {
      problems.push({ field, code: 'option-needed' });
      continue;
    }
    const unitPrice = unitPriceOf(offer, item, option?.id ?? '', currency, setting.rateTo);
    if (unitPrice === null) {
      problems.push({ field, code: 'no-price' });
      continue;
    }
    const optionId = option?.optionId ?? null;
    const key = item.itemId ? (optionId ? `${item.itemId}/${optionId}` : item.itemId) : '';
    const there = key ? setting.stock.get(key) : undefined;
    const wanted = (asked.get(key) ?? 0) + count;
    if (key) asked.set(key, wanted);
    if (there !== undefined && wanted > Math.max(0, Number(there)))
      problems.push({ field, code: 'sold-out', values: [Math.max(0, Math.floor(Number(there)))] });
    lines.push({
      what: option ? `${item.name}, ${option.name}` : item.name,
      note: item.note,
      quantity: String(count),
      unitPrice,
      itemId: item.itemId,
      optionId,
    });
    taxed.push({ quantity: String(count), unitPrice, taxes: placeTaxes(place, item.taxClass, setting.taxes) });
  }
  if (lines.length === 0 && problems.length === 0) problems.push({ field: 'items', code: 'nothing-chosen' });
  return { lines, taxed, problems };
}

/** Between which sums an own amount may lie, in minor units; `most` null for no bound. The least is never below a payment's smallest. */
export function ownSpan(
  offer: Offer,
  currency: string,
  { rateTo, smallest }: Pick<QuoteSetting, 'rateTo' | 'smallest'>,
): { readonly least: bigint; readonly most: bigint | null } {
  const bound = (prices: PriceTable) => priceMinor(priceIn(prices, currency, offer.currency, rateTo) ?? '', currency);
  const [own, floor] = [bound(offer.least) ?? 1n, smallestOf(offer, currency, smallest)];
  return { least: own > floor ? own : floor, most: bound(offer.most) };
}

/** The smallest payment of an offer in a currency, minor units: its own, else the business's. */
const smallestOf = (offer: Offer, currency: string, smallest: QuoteSetting['smallest']): bigint =>
  priceMinor(offer.smallest[currency], currency) ?? smallest(currency);

function readAmount(offer: Offer, choice: Choice, currency: string, rateTo: RateTo): Read {
  const digits = minorDigits(currency);
  const typed = choice.amount.trim() === '' ? null : typedMinor(choice.amount, digits);
  const none = (code: QuoteProblemCode, values: bigint[] = []): Read => ({
    lines: [],
    taxed: [],
    problems: [{ field: 'amount', code, values }],
  });
  if (typed === null || typed === 0n) return none('amount-needed');
  const bound = (prices: PriceTable) => priceMinor(priceIn(prices, currency, offer.currency, rateTo) ?? '', currency);
  const [least, most] = [bound(offer.least) ?? 1n, bound(offer.most)];
  const suggested = suggestedAmounts(offer, currency, rateTo).map((amount) => priceMinor(amount, currency));
  const known = suggested.includes(typed);
  if (!offer.ownAmount && !known) return none('amount-suggested');
  if (!known && (typed < least || (most !== null && typed > most)))
    return none('amount-span', most === null ? [least] : [least, most]);
  const unitPrice = typedDecimal(choice.amount) ?? '0';
  const what = [offer.title, choice.purpose].filter(Boolean).join(', ');
  const wrongPurpose = offer.purposes.length > 0 && !offer.purposes.includes(choice.purpose);
  return {
    lines: [{ what, note: '', quantity: '1', unitPrice, itemId: null, optionId: null }],
    taxed: [{ quantity: '1', unitPrice }],
    problems: wrongPurpose ? [{ field: 'purpose', code: 'purpose-needed' }] : [],
  };
}

function readLines(offer: Offer, choice: Choice, currency: string, setting: QuoteSetting, place: Place): Read {
  if (offer.kind === 'items') return readItems(offer, choice, currency, setting, place);
  if (offer.kind === 'donation') return readAmount(offer, choice, currency, setting.rateTo);
  const taxes = placeTaxes(place, offer.taxClass, setting.taxes);
  const named = (read: Read): Read => ({ ...read, taxed: read.taxed.map((line) => ({ ...line, taxes })) });
  if (offer.kind === 'open') return named(readAmount(offer, choice, currency, setting.rateTo));
  const unitPrice = priceIn(offer.prices, currency, offer.currency, setting.rateTo);
  if (unitPrice === null) return { lines: [], taxed: [], problems: [{ field: 'currency', code: 'no-price' }] };
  const line = { what: offer.title, note: '', quantity: '1', unitPrice, itemId: null, optionId: null };
  return named({ lines: [line], taxed: [{ quantity: '1', unitPrice }], problems: [] });
}

/** The discount that a code gives on these lines, limited to those it is for; an amount is cut to their net (`calculation.md` 11). */
function codeDiscount(
  code: DiscountCode,
  lines: readonly QuoteLine[],
  nets: readonly bigint[],
  currency: string,
): (Discount & { lines: number[] }) | CodeProblem {
  const whole = nets.reduce((a, b) => a + b, 0n);
  const needsCurrency = code.amountMinor !== null || code.leastMinor > 0n;
  if (needsCurrency && code.currency !== currency) return 'code-currency';
  if (whole < code.leastMinor) return 'code-least';
  const eligible = lines.flatMap(({ itemId }, at) =>
    code.itemIds.length === 0 || (itemId !== null && code.itemIds.includes(itemId)) ? [at] : [],
  );
  if (eligible.length === 0) return 'code-other-items';
  const net = eligible.reduce((sum, at) => sum + (nets[at] ?? 0n), 0n);
  if (code.percent !== null) return { percent: code.percent, lines: eligible };
  const amount = code.amountMinor ?? 0n;
  return { amount: amount < net ? amount : net, lines: eligible };
}

/** The first zone that names the country, else the first that names none. */
export const zoneFor = (offer: Offer, country: string): DeliveryZone | null =>
  offer.delivery?.zones.find(({ countries }) => countries.includes(country)) ??
  offer.delivery?.zones.find(({ countries }) => countries.length === 0) ??
  null;

/** Where a payer is billed: at the address they gave, or where it is delivered to when that is the same. */
export const billingOf = (
  offer: Pick<Offer, 'billing' | 'delivery'>,
  choice: Pick<Choice, 'billing' | 'delivery'>,
): Address | null => choice.billing ?? (offer.delivery && offer.billing !== 'no' ? choice.delivery : null);

/** What is missing of an address, each at its own place; the country of a delivery is asked for with its price. */
function addressProblems(field: 'billing' | 'delivery', address: Address | null): QuoteProblem[] {
  const { country = '', lines = [], city = '', postalCode = '' } = address ?? {};
  const missing = [
    ...(country || field === 'delivery' ? [] : ['country']),
    ...(lines.some((line) => line.trim()) ? [] : ['street']),
    ...(city.trim() ? [] : ['city']),
    ...(postalCode.trim() || !isPostalCodeNeeded(country) ? [] : ['postalCode']),
  ];
  return missing.map((part) => ({
    field: `${field}.${part}`,
    code: part === 'country' ? 'country-needed' : 'field-needed',
  }));
}

/** What is missing of what the payer is asked. */
function askedProblems(offer: Offer, choice: Choice): QuoteProblem[] {
  const problems: QuoteProblem[] = [];
  if (!choice.name.trim()) problems.push({ field: 'name', code: 'name-needed' });
  if (!MAIL_ADDRESS.test(choice.email.trim())) problems.push({ field: 'email', code: 'email-needed' });
  if (offer.phone === 'must' && !choice.phone.trim()) problems.push({ field: 'phone', code: 'phone-needed' });
  const billing = billingOf(offer, choice);
  if (offer.billing === 'must' || (offer.billing === 'may' && choice.billing && !isNoAddress(choice.billing)))
    if (billing !== choice.delivery || !offer.delivery) problems.push(...addressProblems('billing', billing));
  if (offer.delivery) problems.push(...addressProblems('delivery', choice.delivery));
  for (const field of offer.fields) {
    const code = answerProblem(field, choice.answers[field.id] ?? '');
    if (code) problems.push({ field: `answers.${field.id}`, code });
  }
  if (offer.termsId && !choice.acceptsTerms) problems.push({ field: 'acceptsTerms', code: 'terms-needed' });
  const rhythm = chosenRhythm(offer, choice);
  if (choice.repeat ? !rhythm : offer.repeat && !offer.repeat.once)
    problems.push({ field: 'repeat', code: 'repeat-needed' });
  if (rhythm && !choice.agrees) problems.push({ field: 'agrees', code: 'agree-needed' });
  return problems;
}

const NOTHING_TYPED = { code: null, codeTrouble: null, voucher: null, voucherTrouble: null } as const;

/** A tip of more than this many times the total is a slip of the finger. */
const MOST_TIPS = 2n;

function tipOf(offer: Offer, choice: Choice, total: bigint, digits: number): bigint | null {
  if (!offer.tip || !choice.tip.trim()) return 0n;
  const share = typedShare(choice.tip, digits);
  if (!share) return null;
  try {
    const tip = 'percent' in share ? percentOf(total, share.percent, 'tip') : share.amount;
    return tip <= MOST_TIPS * total ? tip : null;
  } catch {
    return null;
  }
}

/**
 * Works out an offer for what a payer chose: lines, code, delivery, taxes, tip (`calculation.md` 2 to 6, 9, 11, 13). What is not
 * filled in yet is named in `problems`, and the sum is that of what can be read. Never throws for anything typed.
 */
export function quoteOffer(offer: Offer, choice: Choice, setting: QuoteSetting): OfferQuote {
  const { rateTo } = setting;
  const currency = offerCurrencies(offer, rateTo).includes(choice.currency) ? choice.currency : offer.currency;
  const digits = minorDigits(currency);
  const place = payerPlace(offer, choice, setting.home);
  let converted = false;
  const noted: RateTo = (to) => {
    const rate = rateTo(to);
    converted ||= rate !== null;
    return rate;
  };
  // What the payer names is in their currency: only its bounds are converted.
  const named = offer.kind === 'donation' || offer.kind === 'open';
  const read = readLines(offer, choice, currency, named ? setting : { ...setting, rateTo: noted }, place);
  const problems: QuoteProblem[] = [...read.problems];
  // What is too large to be counted is said at its place, and left out.
  const kept = read.taxed.flatMap((line, at) => {
    try {
      lineTally(line, powerOfTen(digits));
      return [at];
    } catch (error) {
      if (!(error instanceof RuleError)) throw error;
      problems.push({ field: 'amount', code: 'amount-needed' });
      return [];
    }
  });
  const lines = kept.flatMap((at) => read.lines[at] ?? []);
  const taxed = kept.flatMap((at) => read.taxed[at] ?? []);
  const exempt = offer.kind === 'donation' ? { exempt: 'donation' } : offer.voucher ? { exempt: 'voucher' } : {};
  const bare: TallyDocument = {
    currency,
    pricesIncludeTax: offer.kind === 'open' || (offer.pricesIncludeTax ?? setting.pricesIncludeTax),
    ...exempt,
    lines: taxed,
    taxes: setting.taxes.filter((tax) => taxed.some((line) => line.taxes?.includes(tax.id))),
  };
  const first = tally(bare);
  let discount: TallyDocument['discount'];
  if (setting.codeTrouble) problems.push({ field: 'code', code: setting.codeTrouble });
  else if (setting.code && lines.length > 0) {
    const given = codeDiscount(
      setting.code,
      lines,
      first.lines.map(({ net }) => net),
      currency,
    );
    if (typeof given === 'string')
      problems.push({
        field: 'code',
        code: given,
        ...(given === 'code-least' ? { values: [setting.code.leastMinor] } : {}),
      });
    else discount = given;
  }
  const reduced = discount ? { ...bare, discount } : bare;
  const afterCode = discount ? tally(reduced) : first;
  const goods = afterCode.subtotal - afterCode.lineDiscounts - afterCode.documentDiscount;
  let zone: DeliveryZone | null = null;
  let delivery: { amount: bigint } | null = null;
  if (offer.delivery) {
    const country = choice.delivery?.country ?? '';
    if (!country) problems.push({ field: 'delivery.country', code: 'country-needed' });
    zone = zoneFor(offer, country || setting.home.country);
    if (!zone && country) problems.push({ field: 'delivery.country', code: 'no-delivery-there' });
    const price = zone && priceMinor(priceIn(zone.prices, currency, offer.currency, noted) ?? '', currency);
    const free = priceMinor(priceIn(offer.delivery.freeFrom, currency, offer.currency, rateTo) ?? '', currency);
    if (zone) delivery = { amount: free !== null && goods >= free ? 0n : (price ?? 0n) };
  }
  const document: TallyDocument = delivery ? { ...reduced, delivery } : reduced;
  const worked = tally(document);
  const tip = tipOf(offer, choice, worked.total, digits);
  if (tip === null) problems.push({ field: 'tip', code: 'tip-wrong' });
  const tipMinor = tip ?? 0n;
  const smallest = smallestOf(offer, currency, setting.smallest);
  // What a code takes away whole is free; all else has a least.
  const free = worked.total === 0n && worked.documentDiscount > 0n;
  if (lines.length > 0 && !free && worked.total < (smallest > 0n ? smallest : 1n))
    problems.push({ field: 'total', code: 'too-small', values: [smallest] });
  problems.push(...askedProblems(offer, choice));
  if (offer.voucher && setting.today) problems.push(...giftProblems(choice.gift, setting.today));
  const chargedMinor = worked.total + tipMinor;
  const voucherMinor = voucherOf(offer, choice, setting, { chargedMinor, smallest, problems });
  return {
    currency,
    converted,
    document,
    tally: worked,
    lines,
    zone,
    tipMinor,
    chargedMinor,
    voucherMinor,
    leftMinor: chargedMinor - voucherMinor,
    problems,
    later: laterQuote(offer, choice, setting),
  };
}

/** What the typed voucher pays; why it pays nothing stands with the problems. */
function voucherOf(
  offer: Offer,
  choice: Choice,
  { voucher, voucherTrouble }: QuoteSetting,
  { chargedMinor, smallest, problems }: { chargedMinor: bigint; smallest: bigint; problems: QuoteProblem[] },
): bigint {
  if (!takesVouchers(offer)) return 0n;
  const wrong = (code: QuoteProblemCode) => {
    problems.push({ field: 'voucher', code });
    return 0n;
  };
  if (voucherTrouble) return wrong(voucherTrouble);
  if (!voucher) return 0n;
  if (choice.repeat) return wrong('voucher-not-repeated');
  return voucherPart(voucher.availableMinor, chargedMinor, smallest > 0n ? smallest : 1n);
}

/** Whether a gift voucher can pay some of an offer: a gift is given from one's own, and vouchers buy no vouchers. */
export const takesVouchers = (offer: Pick<Offer, 'kind' | 'voucher'>): boolean =>
  offer.kind !== 'donation' && !offer.voucher;

/** A code and a tip are for the first payment only; what the code made of delivery is too. */
function laterQuote(offer: Offer, choice: Choice, setting: QuoteSetting): LaterQuote | null {
  const rhythm = chosenRhythm(offer, choice);
  const all = offer.repeat?.count ?? null;
  if (!rhythm || (all !== null && all < 2)) return null;
  const again = { ...choice, code: '', voucher: '', tip: '', repeat: '' };
  const { tally: each, document } = quoteOffer(offer, again, { ...setting, ...NOTHING_TYPED });
  return {
    rhythm,
    count: all === null ? null : all - 1,
    eachMinor: each.total,
    deliveryMinor: document.delivery?.amount ?? null,
  };
}
