import type { Placement } from '@/core/offer/offer';

/** What each placement is called. */
export const PLACEMENT_WORDS = {
  link: {
    one: 'payment link',
    place: 'Make the link',
    placed: 'The link can be paid',
    list: 'Payment links',
    path: '/ask/links',
  },
  page: {
    one: 'hosted page',
    place: 'On to the page',
    placed: 'The page is published',
    list: 'Hosted pages',
    path: '/ask/pages',
  },
  button: {
    one: 'button',
    place: 'Make the button',
    placed: 'The button can be placed',
    list: 'Buttons',
    path: '/ask/buttons',
  },
} as const satisfies Readonly<Record<Placement, object>>;
