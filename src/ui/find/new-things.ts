import type { Placement } from '@/core/offer/offer';

/** How a new thing begins: it is made at once, or a place is opened where it is written. */
type Beginning =
  | { readonly by: 'compose' }
  | { readonly by: 'offer'; readonly placement: Placement }
  | { readonly by: 'open'; readonly path: string };

/**
 * Everything that can be begun from anywhere, each with its pair of keys: `a` for add, then the thing. `needs` is the right without
 * which it is not offered.
 */
export const NEW_THINGS: readonly {
  readonly words: string;
  readonly also?: string;
  readonly key: string;
  readonly needs: 'ask' | 'records' | 'settings';
  readonly begin: Beginning;
}[] = [
  { words: 'New invoice', also: 'start bill', key: 'a i', needs: 'ask', begin: { by: 'compose' } },
  { words: 'New payment link', key: 'a l', needs: 'ask', begin: { by: 'offer', placement: 'link' } },
  { words: 'New hosted page', key: 'a h', needs: 'ask', begin: { by: 'offer', placement: 'page' } },
  { words: 'New button', key: 'a b', needs: 'ask', begin: { by: 'offer', placement: 'button' } },
  {
    words: 'New billing plan',
    also: 'membership instalments',
    key: 'a p',
    needs: 'ask',
    begin: { by: 'open', path: '/ask/plans/compose' },
  },
  {
    words: 'Many billing plans at once',
    also: 'new',
    key: 'a m',
    needs: 'ask',
    begin: { by: 'open', path: '/ask/plans/many' },
  },
  { words: 'New customer', key: 'a c', needs: 'records', begin: { by: 'open', path: '/records/customers/new' } },
  {
    words: 'New item',
    also: 'product',
    key: 'a t',
    needs: 'records',
    begin: { by: 'open', path: '/records/items/new' },
  },
  {
    words: 'New discount code',
    key: 'a d',
    needs: 'records',
    begin: { by: 'open', path: '/records/codes?new=yes' },
  },
  { words: 'New tax rule', key: 'a x', needs: 'settings', begin: { by: 'open', path: '/records/taxes' } },
  { words: 'New partner', key: 'a n', needs: 'settings', begin: { by: 'open', path: '/records/partners?new=yes' } },
  {
    words: 'Import customers',
    also: 'new',
    key: 'a f',
    needs: 'records',
    begin: { by: 'open', path: '/records/customers/import' },
  },
];

/** Where one can go by name beside the places of the band. */
export const FURTHER_PLACES: readonly { readonly words: string; readonly path: string; readonly also?: string }[] = [
  { words: 'Payment links', path: '/ask/links' },
  { words: 'Hosted pages', path: '/ask/pages' },
  { words: 'Buttons', path: '/ask/buttons' },
  { words: 'Billing plans', path: '/ask/plans', also: 'memberships instalments' },
  { words: 'Recurring invoices', path: '/ask/recurring' },
  { words: 'Bulk invoices', path: '/ask/bulk' },
  { words: 'Upcoming charges', path: '/money/upcoming' },
  { words: 'Daily closing', path: '/money/batches', also: 'batches' },
  { words: 'Payouts', path: '/money/payouts' },
  { words: 'Disputes', path: '/money/disputes' },
  { words: 'Bank', path: '/money/bank', also: 'statements' },
  { words: 'Items from a file', path: '/records/items/import', also: 'import bring in csv' },
  { words: 'Open invoices from a file', path: '/ask/invoices/import', also: 'import bring in csv' },
  { words: 'Counter', path: '/deliver/counter', also: 'collect fetch pick up hand over signature' },
  { words: 'Returns', path: '/deliver/returns', also: 'send back exchange' },
  { words: 'Stock', path: '/deliver/stock', also: 'on hand shelf order low average cost log' },
  { words: 'Receive goods', path: '/deliver/stock/receive', also: 'stock supplier delivery note' },
  { words: 'Count the stock', path: '/deliver/stock/count', also: 'inventory stocktaking shelf' },
  { words: 'Parcel profiles', path: '/deliver/profiles', also: 'boxes rules carrier balance labels' },
  { words: 'Items', path: '/records/items' },
  { words: 'Tax rules', path: '/records/taxes', also: 'taxes' },
  { words: 'Discount codes', path: '/records/codes' },
  { words: 'Partners', path: '/records/partners' },
  { words: 'Vouchers', path: '/records/vouchers', also: 'gifts' },
  { words: 'Donation statements', path: '/records/letters', also: 'gifts letters' },
  { words: 'The business’s profile', path: '/settings/profile', also: 'settings' },
  { words: 'You: sessions, password', path: '/settings/you', also: 'sign out everywhere' },
  { words: 'Card payments', path: '/settings/cards', also: 'statement name kind of business' },
];
