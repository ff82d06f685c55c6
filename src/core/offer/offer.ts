import { isCurrency } from '../money/currency';
import { typedDecimal } from '../money/typed';
import { isCountryCode } from '../place/address';
import type { OfferRepeat } from './repeat';

/** Prices of one thing by currency, each a decimal of the currency's main unit: `{ USD: '12.50' }`. */
export type PriceTable = Readonly<Record<string, string>>;

/** What an offer asks for: a fixed sum, items, what the payer chooses, a gift. */
export const OFFER_KINDS = ['sum', 'items', 'open', 'donation'] as const;
export type OfferKind = (typeof OFFER_KINDS)[number];

/** Where an offer is placed. */
export const PLACEMENTS = ['link', 'page', 'button'] as const;
export type Placement = (typeof PLACEMENTS)[number];

/** How an offer stands: what is paused opens again, what is closed says so for good. */
export const OFFER_STATES = ['open', 'paused', 'closed'] as const;
export type OfferState = (typeof OFFER_STATES)[number];

/** One way in which an item comes; without prices of its own, the item's hold. `optionId` names the stock under Records. */
export type OfferOption = {
  readonly id: string;
  readonly name: string;
  readonly prices: PriceTable;
  readonly optionId: string | null;
};

/** Something that can be taken, at least `least` and at most `most` of it; `itemId` names the item under Records and its stock. */
export type OfferItem = {
  readonly id: string;
  readonly name: string;
  readonly note: string;
  readonly itemId: string | null;
  readonly prices: PriceTable;
  /** What one costs the business in the offer's own currency, as typed; payers never see it. */
  readonly cost?: string;
  readonly taxClass: string;
  readonly options: readonly OfferOption[];
  readonly least: number;
  readonly most: number;
};

/** Delivery into a group of countries; no countries at all means everywhere else. */
export type DeliveryZone = {
  readonly id: string;
  readonly name: string;
  readonly countries: readonly string[];
  readonly prices: PriceTable;
};

/** Free of charge from a sum of the lines on, where such a sum is given for the currency. */
export type OfferDelivery = { readonly zones: readonly DeliveryZone[]; readonly freeFrom: PriceTable };

export const FIELD_KINDS = ['text', 'number', 'choice', 'date', 'tick', 'file'] as const;
export type FieldKind = (typeof FIELD_KINDS)[number];

/** A question of the business's own. */
export type OfferField = {
  readonly id: string;
  readonly kind: FieldKind;
  readonly label: string;
  readonly help: string;
  readonly required: boolean;
  readonly choices: readonly string[];
  readonly onReceipt: boolean;
};

export const ASKED = ['no', 'may', 'must'] as const;
/** Whether something is asked for: not, left to the payer, or needed. */
export type Asked = (typeof ASKED)[number];

/** Who shares in an offer's payments (`calculation.md` 10); `keep` is the flat amount that the business keeps, as typed. */
export type OfferSplit = {
  readonly partners: readonly { readonly partnerId: string; readonly percent: string }[];
  readonly keep: string;
  readonly feeFrom: 'business' | 'all';
  /** What is shared: what is left of a payment without tax and delivery, or all of it; absent where it was agreed before there was a choice: all. */
  readonly of?: 'net' | 'all';
};

/** What is sold or asked for, at what price, what the payer is asked, and what happens afterwards. */
export type Offer = {
  readonly kind: OfferKind;
  /** What the payer reads first. */
  readonly title: string;
  readonly description: string;
  /** The currency that prices are thought in. */
  readonly currency: string;
  /** Further currencies; a price that is not given for one is converted at the day's rate. */
  readonly currencies: readonly string[];
  /** The fixed sum. */
  readonly prices: PriceTable;
  readonly taxClass: string;
  readonly pricesIncludeTax: boolean | null;
  /** Under which trading name, and from which location; null for the business's own. */
  readonly tradingNameId: string | null;
  readonly locationId: string | null;
  readonly items: readonly OfferItem[];
  /** The payer's own amount: its bounds, and what is suggested. */
  readonly least: PriceTable;
  readonly most: PriceTable;
  readonly amounts: readonly string[];
  /** Which suggestion is chosen to begin with; -1 for none. */
  readonly chosen: number;
  readonly ownAmount: boolean;
  /** What a gift can be for. */
  readonly purposes: readonly string[];
  /** The smallest payment by currency. */
  readonly smallest: PriceTable;
  readonly codes: boolean;
  readonly delivery: OfferDelivery | null;
  /** Suggested tips in percent; null where none is asked for. */
  readonly tip: readonly string[] | null;
  readonly phone: Asked;
  readonly billing: Asked;
  readonly message: boolean;
  readonly fields: readonly OfferField[];
  readonly termsId: string | null;
  /** How many payments there may be in all; null without a limit. */
  readonly mostPayments: number | null;
  /** The last day on which it can be paid, in the business's zone; empty for none. */
  readonly lastOn: string;
  readonly thanks: string;
  /** Where the payer is led afterwards, and where after turning back; https only, empty for our own page. */
  readonly redirect: string;
  readonly turnedBack: string;
  /** Who else is told of a payment. */
  readonly notify: readonly string[];
  readonly receipt: 'auto' | 'hand';
  readonly split: OfferSplit | null;
  /** Null where everybody pays once. */
  readonly repeat: OfferRepeat | null;
  /** What is paid for are gift vouchers, each worth what was paid for it. */
  readonly voucher: boolean;
};

const EMPTY: Offer = {
  kind: 'sum',
  title: '',
  description: '',
  currency: '',
  currencies: [],
  prices: {},
  taxClass: 'standard',
  pricesIncludeTax: null,
  tradingNameId: null,
  locationId: null,
  items: [],
  least: {},
  most: {},
  amounts: [],
  chosen: -1,
  ownAmount: true,
  purposes: [],
  smallest: {},
  codes: false,
  delivery: null,
  tip: null,
  phone: 'no',
  billing: 'no',
  message: false,
  fields: [],
  termsId: null,
  mostPayments: null,
  lastOn: '',
  thanks: '',
  redirect: '',
  turnedBack: '',
  notify: [],
  receipt: 'auto',
  split: null,
  repeat: null,
  voucher: false,
};

/** An offer whole: what was kept before a part existed is as on an empty one. */
export const completeOffer = (kept: Partial<Offer>): Offer => ({ ...EMPTY, ...kept });

/** An item that nothing is known of yet. */
export const newOfferItem = (id: string, more: Partial<OfferItem> = {}): OfferItem => ({
  id,
  name: '',
  note: '',
  itemId: null,
  prices: {},
  taxClass: 'standard',
  options: [],
  least: 1,
  most: 10,
  ...more,
});

export const MOST_SUGGESTIONS = 6;
export const MOST_ITEMS = 40;
export const MOST_FIELDS = 20;

/** Something that has to be put right before an offer can be placed; `field` is a path within the offer. */
export type OfferFault = { readonly field: string; readonly words: string };

const SAY_PRICE = 'Write the price as a number, such as 12.50.';
const SAY_AMOUNT = 'Write this amount as a number, such as 25.';

/** Whether an address may be led to: https, with a host, without a name and password in it. */
export function isSafeRedirect(address: string): boolean {
  if (address.length > 500 || !URL.canParse(address)) return false;
  const { protocol, username, password, hostname } = new URL(address);
  return protocol === 'https:' && username === '' && password === '' && hostname.includes('.');
}

function priceFaults(field: string, prices: PriceTable, needed: string | null, words = SAY_PRICE): OfferFault[] {
  const faults = Object.entries(prices).flatMap(([currency, price]) =>
    isCurrency(currency) && typedDecimal(price) !== null ? [] : [{ field: `${field}.${currency}`, words }],
  );
  if (needed !== null && !prices[needed]) faults.push({ field: `${field}.${needed}`, words });
  return faults;
}

/** What keeps an offer from being placed, in words for the business; empty where nothing does. */
export function offerFaults(offer: Offer): OfferFault[] {
  const faults: OfferFault[] = [];
  const add = (field: string, words: string) => faults.push({ field, words });
  const { currency } = offer;
  if (!offer.title.trim()) add('title', 'Give it a name that the payer will understand.');
  for (const code of [currency, ...offer.currencies])
    if (!isCurrency(code)) add('currencies', `${code || 'This'} is no currency.`);
  if (offer.kind === 'sum') faults.push(...priceFaults('prices', offer.prices, currency));
  if (offer.kind === 'items') {
    if (offer.items.length === 0) add('items', 'Add at least one item.');
    for (const [at, item] of offer.items.entries()) {
      const path = `items.${at}`;
      if (!item.name.trim()) add(`${path}.name`, 'Name this item.');
      const own = item.options.length > 0 && item.options.every(({ prices }) => prices[currency]);
      faults.push(...priceFaults(`${path}.prices`, item.prices, own ? null : currency));
      if (item.most < 1 || item.least < 0 || item.least > item.most)
        add(`${path}.most`, 'The least is at most the most, and the most is at least 1.');
      for (const [index, option] of item.options.entries()) {
        if (!option.name.trim()) add(`${path}.options.${index}.name`, 'Name this option.');
        faults.push(...priceFaults(`${path}.options.${index}.prices`, option.prices, null));
      }
    }
  }
  if (offer.kind === 'open' || offer.kind === 'donation') {
    if (offer.amounts.length > MOST_SUGGESTIONS) add('amounts', `At most ${MOST_SUGGESTIONS} suggestions.`);
    for (const [at, amount] of offer.amounts.entries())
      if (typedDecimal(amount) === null) add(`amounts.${at}`, SAY_AMOUNT);
    if (!offer.ownAmount && offer.amounts.length === 0) add('amounts', 'Suggest an amount, or let the payer choose.');
    faults.push(
      ...priceFaults('least', offer.least, null, SAY_AMOUNT),
      ...priceFaults('most', offer.most, null, SAY_AMOUNT),
    );
  }
  faults.push(...priceFaults('smallest', offer.smallest, null, SAY_AMOUNT));
  for (const [at, zone] of (offer.delivery?.zones ?? []).entries())
    faults.push(...priceFaults(`delivery.zones.${at}.prices`, zone.prices, currency));
  if (offer.delivery) {
    if (offer.delivery.zones.length === 0) add('delivery', 'Say where you deliver to, and at which price.');
    faults.push(...priceFaults('delivery.freeFrom', offer.delivery.freeFrom, null, SAY_AMOUNT));
  }
  for (const [at, field] of offer.fields.entries()) {
    if (!field.label.trim()) add(`fields.${at}.label`, 'Say what is asked for.');
    if (field.kind === 'choice' && field.choices.filter((one) => one.trim()).length < 2)
      add(`fields.${at}.choices`, 'A choice needs at least two answers.');
  }
  for (const [at, { countries }] of (offer.delivery?.zones ?? []).entries()) {
    const unknown = countries.filter((code) => !isCountryCode(code));
    if (unknown.length > 0)
      add(
        `delivery.zones.${at}.countries`,
        `There is no country ${unknown.join(', ')}. Choose countries from the list.`,
      );
  }
  if (offer.redirect && !isSafeRedirect(offer.redirect))
    add('redirect', 'Write a whole address that begins with https://.');
  if (offer.turnedBack && !isSafeRedirect(offer.turnedBack))
    add('turnedBack', 'Write a whole address that begins with https://.');
  if (offer.voucher) {
    // Worth what is paid for it, taxed and shared when it is used: nothing else can hang on its sale.
    if (offer.kind === 'donation')
      add('voucher', 'A donation buys nothing: make it a sum or an amount of the payer’s choice.');
    if (offer.codes) add('voucher', 'A gift voucher is sold for what it is worth: take the discount codes out.');
    if (offer.delivery) add('voucher', 'A gift voucher goes by mail: take the delivery out.');
    if (offer.split) add('voucher', 'Partners get their part when the voucher is used: take the split out.');
    if (offer.repeat) add('voucher', 'A gift voucher is bought once: take the repeating out.');
  }
  if (offer.split) {
    const percents = offer.split.partners.map(({ percent }) => Number(typedDecimal(percent) ?? Number.NaN));
    if (percents.some(Number.isNaN)) add('split', 'Write each share as a number of percent.');
    else if (percents.reduce((a, b) => a + b, 0) > 100) add('split', 'The shares are more than 100 percent together.');
    if (offer.split.keep && typedDecimal(offer.split.keep) === null) add('split', SAY_AMOUNT);
  }
  return faults;
}
