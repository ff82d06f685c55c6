import type { Fronts, House } from '../front/front';
import type { NumberSeries } from '../invoice/numbering';
import type { BusinessBank, Seller } from '../invoice/printed';
import { type PaperWays, USUAL_WAYS } from '../paper/paper';
import { type Address, NO_ADDRESS } from '../place/address';
import { type ChargingPolicy, USUAL_POLICY } from '../plan/dunning';
import type { Place } from '../tax/tax-rules';
import type { Tariff } from './tariff';

/** A business's profile: what its documents show and how its money is counted. */
export type Business = Seller &
  Fronts & {
    readonly id: string;
    /** What it does, in its own words. */
    readonly description: string;
    readonly country: string;
    readonly zone: string;
    /** The locale of its papers and mails, BCP 47. */
    readonly paperLocale: string;
    /** The locale as whoever reads at the desk writes days and numbers; never that of a paper or a mail. */
    readonly deskLocale: string;
    readonly currency: string;
    readonly pricesIncludeTax: boolean;
    /** The smallest card payment by currency, in minor units; none for a currency that is not named. */
    readonly smallestPayments: Readonly<Record<string, number>>;
    /** Where it is, in parts; `address` is how that is printed. */
    readonly place: Address;
    readonly logoId: string | null;
    /** `#rrggbb`, the colour of its documents. */
    readonly accent: string;
    readonly bank: BusinessBank;
    /** Days from the due date on which reminders go out, negative before it. */
    readonly reminders: readonly number[];
    /** `HH:MM`: no reminder leaves between these, in the business's zone. */
    readonly quietFrom: string;
    readonly quietTo: string;
    /** The text of the invoice's e-mail by language, where the business has its own. */
    readonly mailTexts: Readonly<Record<string, string>>;
    readonly ways: PaperWays | null;
    readonly termsId: string | null;
    /** Signs what the business's own website is told; made with the business. */
    readonly signingSecret: string;
    readonly receiptStyle: ReceiptStyle;
    /** How billing plans are charged. */
    readonly charging: ChargingPolicy;
    /** What is agreed with the card processor. */
    readonly tariff: Tariff;
    /** When somebody founded it by signing up; null where a program did. */
    readonly signedUpAt: Date | null;
    /** Since when it may send: somebody of it has confirmed their address. */
    readonly mailConfirmedAt: Date | null;
    /** What it is: a group of ISIC Rev. 4, three digits; empty while nobody has said so. */
    readonly kind: string;
    /** How it is called on statements of cards. */
    readonly statementName: string;
    /** Since when it can be paid through the processor. */
    readonly cardsSince: Date | null;
    /** Since when it is known who stands behind it: before, nothing is paid out. */
    readonly verifiedAt: Date | null;
  };

/** A business as it is founded, before anybody reads it. */
export type NewBusiness = Omit<Business, 'deskLocale'>;

/** What the business wants on its receipts: registration data, the statement for donations, who signs. */
export type ReceiptStyle = {
  readonly registration: string;
  readonly statement: string;
  readonly signer: string;
  readonly signature: Stamp | null;
  readonly seal: Stamp | null;
};

/** Where a picture stands across the foot of a receipt. */
export const STAMP_PLACES = ['left', 'middle', 'right'] as const;

/** A signature or a seal as a picture: how high it is printed, in millimetres, and where it stands. */
export type Stamp = {
  readonly fileId: string;
  readonly heightMm: number;
  readonly at: (typeof STAMP_PLACES)[number];
};

/** A receipt with nothing of the business's own on it. */
export const PLAIN_RECEIPT: ReceiptStyle = { registration: '', statement: '', signer: '', signature: null, seal: null };

/** What a profile holds before anybody has written on it. */
export const NEW_PROFILE = {
  place: NO_ADDRESS,
  logoId: null,
  accent: '#6B2451',
  bank: { holder: '', account: '', bankCode: '', bank: '' },
  reminders: [],
  quietFrom: '20:00',
  quietTo: '08:00',
  mailTexts: {},
  ways: null,
  termsId: null,
  signingSecret: '',
  receiptStyle: PLAIN_RECEIPT,
  charging: USUAL_POLICY,
  tariff: [],
  description: '',
  tradingNames: [],
  locations: [],
  signedUpAt: null,
  mailConfirmedAt: null,
  kind: '',
  statementName: '',
  cardsSince: null,
  verifiedAt: null,
} satisfies Partial<Business>;

/** The place at which customers without an address are taxed. */
export const homePlace = ({ place, country }: Pick<Business, 'place' | 'country'>): Place => ({
  country: place.country || country,
  ...(place.region ? { region: place.region } : {}),
  ...(place.postalCode ? { postalCode: place.postalCode } : {}),
});

/** The business as its documents show it. */
export const sellerOf = (business: House): Seller => ({
  name: business.name,
  ...(business.legalName ? { legalName: business.legalName } : {}),
  address: business.address,
  phone: business.phone,
  email: business.email,
  website: business.website,
  taxNumber: business.taxNumber,
  country: business.country,
  place: business.place,
});

/** What its own papers look like, and in whose language they are. */
export const lookOf = ({ accent, paperLocale }: Business): { readonly accent: string; readonly locale: string } => ({
  accent,
  locale: paperLocale,
});

/** The smallest card payment in a currency, in minor units, at least 1. */
export const smallestPayment = ({ smallestPayments }: Pick<Business, 'smallestPayments'>, currency: string): bigint =>
  BigInt(Math.max(1, smallestPayments[currency] ?? 1));

/** The ways to pay that a new paper begins with. */
export const usualWays = (business: Pick<Business, 'ways'>): PaperWays => business.ways ?? USUAL_WAYS;

/** Whether nothing should be sent at a time of day `HH:MM`; a span may go over midnight, and one without length is none. */
export function isQuiet({ quietFrom, quietTo }: Pick<Business, 'quietFrom' | 'quietTo'>, time: string): boolean {
  const [from, to] = [quietFrom.slice(0, 5), quietTo.slice(0, 5)];
  if (from === to) return false;
  return from < to ? time >= from && time < to : time >= from || time < to;
}

/** What a person may write of a business; zone, locale and currency stay. */
export type ProfileFields = Omit<
  Business,
  | 'id'
  | 'address'
  | 'zone'
  | 'paperLocale'
  | 'deskLocale'
  | 'currency'
  | 'signingSecret'
  | 'receiptStyle'
  | 'charging'
  | 'tariff'
  | 'tradingNames'
  | 'locations'
  | 'legalName'
  | 'signedUpAt'
  | 'mailConfirmedAt'
  | 'kind'
  | 'statementName'
  | 'cardsSince'
  | 'verifiedAt'
> & { readonly series: readonly NumberSeries[] };
