import type { Deed } from '@/core/find/deeds';
import type { Found } from '@/core/find/found';

/** Something that was found, as it is sent; `minor` in minor units. */
export type JsonFound = Omit<Found, 'amountMinor' | 'at'> & { readonly minor: number | null };

/** A line of the answer: something found, or what is done with it. */
export type FoundLine = JsonFound & { readonly deed: Deed | null };

const KIND_WORDS: Readonly<Record<Found['kind'], string>> = {
  customer: 'Customer',
  invoice: 'Invoice',
  plan: 'Plan',
  page: 'Hosted page',
  link: 'Payment link',
  button: 'Button',
  payment: 'Payment',
  item: 'Item',
  shipment: 'Shipment',
  receipt: 'Receipt',
  partner: 'Partner',
  code: 'Discount code',
  recurring: 'Recurring invoice',
  bulk: 'Bulk invoices',
};

const SHOWN_STATES: Readonly<Record<string, string>> = {
  cancelled: 'cancelled',
  draft: 'draft',
  paused: 'paused',
  closed: 'closed',
  finished: 'finished',
  waiting: 'waiting for card',
  refused: 'refused',
  voided: 'voided',
  pending: 'pending',
  'label given back': 'label given back',
  arrived: 'arrived',
  'came back': 'came back',
  lost: 'lost',
};

/** What something is: `Invoice 1172`, `Plan P-21, paused`. */
export function whatItIs({ kind, number, state }: JsonFound): string {
  const name = kind === 'invoice' && state === 'draft' ? 'Draft invoice' : KIND_WORDS[kind];
  const shown = kind === 'code' || kind === 'page' || kind === 'link' || kind === 'button' ? '' : number;
  const stands = name.startsWith('Draft') ? '' : SHOWN_STATES[state];
  return `${[name, shown].filter(Boolean).join(' ')}${stands ? `, ${stands}` : ''}`;
}

/** Where it stands. */
export function pathOf({ kind, id, state }: JsonFound): string {
  switch (kind) {
    case 'customer':
      return `/records/customers/${id}`;
    case 'invoice':
      return state === 'draft' ? `/ask/compose/${id}` : `/ask/invoices/${id}`;
    case 'plan':
      return `/ask/plans/${id}`;
    case 'page':
      return `/ask/pages/${id}`;
    case 'link':
      return `/ask/links/${id}`;
    case 'button':
      return `/ask/buttons/${id}`;
    case 'payment':
    case 'receipt':
      return `/money/payments/${id}`;
    case 'shipment':
      return `/deliver/shipments/${id}`;
    case 'item':
      return `/records/items/${id}`;
    case 'partner':
      return '/records/partners';
    case 'code':
      return '/records/codes';
    case 'recurring':
      return `/ask/recurring/${id}`;
    case 'bulk':
      return `/ask/bulk/${id}`;
  }
}
