import { SectionTabs } from '@/ui/kit/tabs';

const KINDS = [
  { name: 'Invoices', href: '/ask/invoices' },
  { name: 'Payment links', href: '/ask/links' },
  { name: 'Hosted pages', href: '/ask/pages' },
  { name: 'Buttons', href: '/ask/buttons' },
  { name: 'Billing plans', href: '/ask/plans' },
  { name: 'Recurring invoices', href: '/ask/recurring' },
  { name: 'Bulk invoices', href: '/ask/bulk' },
] as const;

/** The ways of asking for money that there are. */
export const AskTabs = ({ here }: { here: (typeof KINDS)[number]['name'] }) => (
  <SectionTabs label="Ways to ask" kinds={KINDS} here={here} />
);
