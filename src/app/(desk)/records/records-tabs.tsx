import { SectionTabs } from '@/ui/kit/tabs';

const KINDS = [
  { name: 'Customers', href: '/records/customers' },
  { name: 'Items', href: '/records/items' },
  { name: 'Taxes', href: '/records/taxes' },
  { name: 'Discount codes', href: '/records/codes' },
  { name: 'Vouchers', href: '/records/vouchers' },
  { name: 'Partners', href: '/records/partners' },
] as const;

/** The kinds of records that there are. */
export const RecordsTabs = ({ here }: { here: (typeof KINDS)[number]['name'] }) => (
  <SectionTabs label="Records" kinds={KINDS} here={here} />
);
