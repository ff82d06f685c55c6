import { SectionTabs } from '@/ui/kit/tabs';

const KINDS = [
  { name: 'Payments', href: '/money/payments' },
  { name: 'Upcoming', href: '/money/upcoming' },
  { name: 'Daily closing', href: '/money/batches' },
  { name: 'Payouts', href: '/money/payouts' },
  { name: 'Bank', href: '/money/bank' },
  { name: 'Disputes', href: '/money/disputes' },
] as const;

/** What there is to see of money. */
export const MoneyTabs = ({ here }: { here: (typeof KINDS)[number]['name'] }) => (
  <SectionTabs label="Money" kinds={KINDS} here={here} />
);
