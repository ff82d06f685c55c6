/** What of customers and goods is seen by who sees no sums. */
import { billingLines } from '@/core/customer/customer';
import { addressLines } from '@/core/place/address';
import { businessById } from '@/db/businesses';
import { type CustomerCursor, customerRows } from '@/db/customers';
import { itemRows } from '@/db/items';
import { desk } from '@/flows/door/operation';

const PAGE = 40;
const MOST_GOODS = 500;

/** Whom something goes to: nothing of what they owe, were sold, or is noted of them. */
export type Contact = {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly phone: string;
  readonly address: readonly string[];
  /** Where parcels go; empty where that is the same. */
  readonly delivery: readonly string[];
};

/** A page of contacts by name. @param words that all have to be found; may be empty */
export const contactsPage = desk('customers').read(
  async (
    db,
    words: string,
    after: CustomerCursor | null = null,
  ): Promise<{ readonly rows: readonly Contact[]; readonly next: CustomerCursor | null }> => {
    const { country, paperLocale } = await businessById(db);
    const rows = await customerRows(db, { words: words.trim(), group: '' }, PAGE + 1, after);
    const shown = rows.slice(0, PAGE);
    const last = shown.at(-1);
    return {
      rows: shown.map((customer) => ({
        id: customer.id,
        name: customer.name,
        email: customer.email,
        phone: customer.phone,
        address: billingLines(customer, country, paperLocale),
        delivery: customer.delivery ? addressLines(customer.delivery, country, paperLocale) : [],
      })),
      next: rows.length > PAGE && last ? { key: last.name.toLowerCase(), id: last.id } : null,
    };
  },
);

/** What is kept in stock: how it is called, and how much of it is there. */
export type Goods = {
  readonly id: string;
  readonly name: string;
  readonly code: string;
  /** A plain decimal; null where it is not counted. */
  readonly onHand: string | null;
  readonly options: readonly { readonly name: string; readonly onHand: string | null }[];
};

/** Goods that are counted, by name, without a price. */
export const goodsOnHand = desk('own').read(async (db): Promise<readonly Goods[]> => {
  const items = await itemRows(db, '', MOST_GOODS);
  return items
    .map(({ id, name, code, onHand, options }) => ({
      id,
      name,
      code,
      onHand,
      options: options.filter((one) => one.onHand !== null).map((one) => ({ name: one.name, onHand: one.onHand })),
    }))
    .filter(({ onHand, options }) => onHand !== null || options.length > 0);
});
