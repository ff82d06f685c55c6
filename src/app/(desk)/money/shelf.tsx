import { Shelf } from '@/ui/shelf';

const KINDS = [
  { name: 'Payments', href: '/money/payments' },
  { name: 'Daily batches', href: '/money/batches' },
  { name: 'Upcoming', href: '/money/upcoming' },
] as const;

/** What there is to see of money. */
export const MoneyShelf = ({ here }: { here: (typeof KINDS)[number]['name'] }) => (
  <Shelf label="Money" kinds={KINDS} here={here} />
);
