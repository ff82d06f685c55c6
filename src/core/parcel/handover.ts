import type { CalendarDate } from '../dates/calendar-date';
import { isCalendarDate } from '../dates/calendar-date';
import type { PrintedLine } from '../invoice/printed';
import type { Handed, Item } from '../item/item';
import { scaledDecimal } from '../money/decimal';
import { type Address, addressForm, isPostalCodeNeeded } from '../place/address';
import { scaledCount } from '../stock/available';

/** Whom a parcel goes to. Plain JSON. */
export type Recipient = {
  readonly name: string;
  readonly address: Address;
  readonly email: string;
  readonly phone: string;
  /** The locale in which they read. */
  readonly locale: string;
};

/** Something that is handed over, of one line of a sale; `quantity` a decimal in the line's unit. */
export type HandoverLine = {
  readonly line: number;
  readonly itemId: string | null;
  readonly optionId: string | null;
  readonly what: string;
  readonly quantity: string;
  readonly handed: Handed;
  /** What the line came to without taxes, in minor units of the sale's currency. */
  readonly valueMinor: bigint;
};

/** How much of a line is in parcels or was fetched, and how much was given back before; decimals in its unit. */
export type HandedOut = { readonly quantity: string; readonly packed: string; readonly dropped: string };

/** What of a line is in no parcel, was not fetched and not given back, scaled by 10^4. */
export const unpackedQuantity = ({ quantity, packed, dropped }: HandedOut): bigint =>
  scaledCount(quantity) - scaledCount(packed) - scaledCount(dropped);

/** How a kind of item usually comes to the customer. */
const BY_KIND: Readonly<Record<Item['kind'], Handed>> = { goods: 'posted', digital: 'digital', service: 'service' };

/** How an item comes to the customer: as it says itself, else by its kind. */
export const handedOf = (item: Pick<Item, 'kind' | 'going'>): Handed => item.going.handed || BY_KIND[item.kind];

/**
 * What a sale hands over: a line as it says itself, else as its item comes; a line without either is work, and nothing is packed for it.
 * Where nothing is delivered anywhere, goods that would be posted are collected.
 *
 * @param ofItem how items come, by id
 * @param isDelivered whether there is somewhere to deliver to
 */
export const handedOver = (
  lines: readonly PrintedLine[],
  ofItem: ReadonlyMap<string, Handed>,
  isDelivered: boolean,
): HandoverLine[] =>
  lines.flatMap((line, at) => {
    const own = line.handed ?? (line.itemId ? ofItem.get(line.itemId) : undefined);
    if (!own || own === 'service' || !isCount(line.quantity)) return [];
    const handed = own === 'posted' && !line.handed && !isDelivered ? 'collected' : own;
    return [
      {
        line: at,
        itemId: line.itemId ?? null,
        optionId: line.optionId ?? null,
        what: line.what,
        quantity: line.quantity,
        handed,
        valueMinor: BigInt(line.net),
      },
    ];
  });

const isCount = (quantity: string): boolean => {
  try {
    return scaledDecimal(quantity, 4, 'bad_quantity', 'quantity') > 0n;
  } catch {
    return false;
  }
};

/** By when it should be there: the latest day that a line names, else the end of the service; null where nobody said. */
export function wantedBy(lines: readonly Pick<PrintedLine, 'on'>[], serviceTo: string): CalendarDate | null {
  const days = [...lines.map(({ on = '' }) => on), serviceTo].filter(isCalendarDate).sort();
  return days.at(-1) ?? null;
}

/** Why something cannot go yet; empty where nothing keeps it. */
export const BLOCKS = [
  '',
  'no-address',
  'no-street',
  'no-number',
  'no-city',
  'no-code',
  'no-country',
  'no-stock',
] as const;
export type Block = (typeof BLOCKS)[number];

export const BLOCK_WORDS: Readonly<Record<Exclude<Block, ''>, string>> = {
  'no-address': 'No address is known',
  'no-street': 'The address has no street',
  'no-number': 'The address has no house number',
  'no-city': 'The address has no city',
  'no-code': 'The address has no postal code',
  'no-country': 'The address has no country',
  'no-stock': 'Waits for stock',
};

/** Countries in which houses are commonly without a number; there a name does. */
const NAMED_HOUSES = new Set(['GB', 'IE', 'AE', 'IN', 'NG', 'KE', 'CR', 'QA', 'SA']);

/**
 * What keeps a parcel from going to an address, by its form alone; whether it exists is the carrier's to say. A post-office box needs no
 * street and no number.
 */
export function blockOf({ name, address }: Pick<Recipient, 'name' | 'address'>): Block {
  const lines = address.lines.map((line) => line.trim()).filter(Boolean);
  if (lines.length === 0 && !address.city.trim() && !address.postalCode.trim()) return 'no-address';
  if (!address.country) return 'no-country';
  if (!name.trim() || lines.length === 0) return 'no-street';
  if (!address.city.trim()) return 'no-city';
  if (!address.postalCode.trim() && isPostalCodeNeeded(address.country)) return 'no-code';
  const hasNumber = lines.some((line) => /\p{N}/u.test(line));
  return hasNumber || NAMED_HOUSES.has(address.country) || addressForm(address.country).postalCode === ''
    ? ''
    : 'no-number';
}

/** Whether two recipients are one door: what goes there can go in one parcel. */
export function sameDoor(one: Recipient, other: Recipient): boolean {
  const plain = ({ name, address }: Recipient) =>
    [name, ...address.lines, address.city, address.region, address.postalCode, address.country]
      .map((part) => part.trim().toLowerCase().replace(/\s+/g, ' '))
      .filter(Boolean)
      .join('\n');
  return plain(one) === plain(other);
}
