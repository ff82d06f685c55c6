import type { Route } from 'next';

/** The places of the desk, each with its key. */
export const PLACES = [
  { name: 'Today', href: '/today', key: 't' },
  { name: 'Ask', href: '/ask/invoices', key: 'a' },
  { name: 'Money', href: '/money/payments', key: 'm' },
  { name: 'Deliver', href: '/deliver/pack', key: 'd' },
  { name: 'Records', href: '/records/customers', key: 'r' },
] as const satisfies readonly { name: string; href: Route; key: string }[];

/** What an address that somebody cut down to its first word opens: the place’s first screen. */
export const SHORTENED = [
  ...PLACES.map(({ href }) => ({ short: `/${href.split('/')[1]}`, opens: href })),
  { short: '/settings', opens: '/settings/profile' },
].filter(({ short, opens }) => short !== opens);
