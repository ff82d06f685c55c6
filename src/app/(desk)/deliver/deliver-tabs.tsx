import { SectionTabs } from '@/ui/kit/tabs';

const KINDS = [
  { name: 'To pack', href: '/deliver/pack' },
  { name: 'Shipments', href: '/deliver/shipments' },
  { name: 'Counter', href: '/deliver/counter' },
  { name: 'Returns', href: '/deliver/returns' },
  { name: 'Stock', href: '/deliver/stock' },
] as const;
const PROFILES = { name: 'Parcel profiles', href: '/deliver/profiles' } as const;

/** What there is to deliver; profiles name sums. */
export const DeliverTabs = ({
  here,
  sums,
}: {
  here: (typeof KINDS)[number]['name'] | 'Parcel profiles';
  sums: boolean;
}) => <SectionTabs label="Deliver" kinds={sums ? [...KINDS, PROFILES] : KINDS} here={here} />;
