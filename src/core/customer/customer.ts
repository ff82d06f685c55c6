import type { DueChoice } from '../paper/paper';
import { type Address, addressLines, isNoAddress, NO_ADDRESS } from '../place/address';
import type { Place } from '../tax/tax-rules';

/** A customer on file. `language` and `currency` are empty where the business's own hold; `due` null likewise. */
export type Customer = {
  readonly id: string;
  readonly kind: 'person' | 'company';
  readonly name: string;
  readonly email: string;
  /** Further addresses that get a copy of what is sent. */
  readonly copies: readonly string[];
  readonly phone: string;
  readonly language: string;
  readonly currency: string;
  readonly billing: Address;
  /** Where goods go; null where they go to the billing address. */
  readonly delivery: Address | null;
  readonly taxNumber: string;
  readonly note: string;
  readonly due: DueChoice | null;
  readonly groups: readonly string[];
  /** Whether what they order leaves before they have paid; null for as the business usually does. */
  readonly shipsFirst: boolean | null;
};

const plain = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/** What a customer is found by, in lower case: every name, address and number on file. */
export function searchText(customer: Customer): string {
  const { billing, delivery } = customer;
  const places = [billing, delivery].flatMap((one) => (one ? [...one.lines, one.city, one.postalCode] : []));
  const phone = customer.phone.replace(/\D/g, '');
  const parts = [
    customer.name,
    customer.email,
    ...customer.copies,
    customer.phone,
    phone,
    ...places,
    customer.taxNumber,
    ...customer.groups,
  ].filter(Boolean);
  const text = parts.join(' ').toLowerCase();
  const bare = plain(text);
  return bare === text ? text : `${text} ${bare}`;
}

const FORM_WORDS = new Set([
  'the',
  'and',
  'inc',
  'llc',
  'ltd',
  'gmbh',
  'ag',
  'co',
  'sa',
  'sarl',
  'sl',
  'mr',
  'mrs',
  'ms',
  'dr',
]);

/** A name without accents, order of words, punctuation and legal forms: two that share it are likely one customer. */
export function nameKey(name: string): string {
  const words = plain(name)
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);
  const telling = words.filter((word) => !FORM_WORDS.has(word));
  return (telling.length > 0 ? telling : words).sort().join(' ');
}

/** Where a customer is taxed: the delivery address if goods are delivered and there is one, else the billing address. */
export function taxPlace(customer: Pick<Customer, 'billing' | 'delivery'>, goodsDelivered: boolean): Place {
  const at =
    goodsDelivered && customer.delivery && !isNoAddress(customer.delivery) ? customer.delivery : customer.billing;
  return {
    country: at.country,
    ...(at.region ? { region: at.region } : {}),
    ...(at.postalCode ? { postalCode: at.postalCode } : {}),
  };
}

/** E-mail addresses without those written before in other letters; the first writing stays. */
export const distinctAddresses = (addresses: readonly string[]): string[] =>
  addresses.filter(
    (address, at) => addresses.findIndex((other) => other.toLowerCase() === address.toLowerCase()) === at,
  );

/**
 * One customer out of two: what `kept` says holds, what it leaves open is taken from `other`; addresses for copies, groups
 * and notes of both stay.
 */
export function merged(kept: Customer, other: Customer): Customer {
  const emails = [kept.email, ...kept.copies, other.email, ...other.copies].filter(Boolean);
  const [email = '', ...copies] = distinctAddresses(emails);
  return {
    ...kept,
    email,
    copies,
    phone: kept.phone || other.phone,
    language: kept.language || other.language,
    currency: kept.currency || other.currency,
    billing: isNoAddress(kept.billing) ? other.billing : kept.billing,
    delivery: kept.delivery ?? other.delivery,
    taxNumber: kept.taxNumber || other.taxNumber,
    note: [kept.note, other.note].filter(Boolean).join('\n'),
    due: kept.due ?? other.due,
    groups: [...new Set([...kept.groups, ...other.groups])],
  };
}

/** A customer's printed billing address. @param home the business's country */
export const billingLines = (customer: Pick<Customer, 'billing'>, home: string, locale: string): string[] =>
  addressLines(customer.billing, home, locale);

/** A customer of whom only a name is known yet. */
export const newCustomer = (name: string, more: Partial<Omit<Customer, 'id' | 'name'>> = {}): Omit<Customer, 'id'> => ({
  kind: 'person',
  name,
  email: '',
  copies: [],
  phone: '',
  language: '',
  currency: '',
  billing: NO_ADDRESS,
  delivery: null,
  taxNumber: '',
  note: '',
  due: null,
  groups: [],
  shipsFirst: null,
  ...more,
});
