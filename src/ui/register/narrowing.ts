import type { RegisterAsk } from '@/core/register/ask';

/** What of its neighbours the register can be narrowed to, by what the finder calls them. */
export const NARROWED_BY: Readonly<Record<string, { readonly field: keyof RegisterAsk; readonly words: string }>> = {
  customer: { field: 'customerId', words: 'Customer' },
  link: { field: 'offerId', words: 'Payment link' },
  page: { field: 'offerId', words: 'Hosted page' },
  button: { field: 'offerId', words: 'Button' },
  plan: { field: 'planId', words: 'Billing plan' },
  partner: { field: 'partnerId', words: 'Partner' },
  item: { field: 'itemId', words: 'Item' },
};

/** The ids that the register is narrowed to, whatever of. */
export const NARROWING_FIELDS = ['customerId', 'offerId', 'planId', 'partnerId', 'itemId'] as const;
export type NarrowingField = (typeof NARROWING_FIELDS)[number];

/** What each is called where its name is not known. */
export const FIELD_WORDS: Readonly<Record<NarrowingField, string>> = {
  customerId: 'One customer',
  offerId: 'One offer',
  planId: 'One plan',
  partnerId: 'One partner',
  itemId: 'One item',
};
