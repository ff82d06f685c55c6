import { Shelf } from '@/ui/shelf';

const KINDS = [
  { name: 'Invoices', href: '/ask/invoices' },
  { name: 'Payment links', href: '/ask/links' },
  { name: 'Hosted pages', href: '/ask/pages' },
  { name: 'Buttons', href: '/ask/buttons' },
  { name: 'Billing plans', href: '/ask/plans' },
  { name: 'Coming again', href: '/ask/repeats' },
  { name: 'Batches', href: '/ask/batch' },
] as const;

/** The ways of asking for money that there are. */
export const AskShelf = ({ here }: { here: (typeof KINDS)[number]['name'] }) => (
  <Shelf label="Ways to ask" kinds={KINDS} here={here} />
);
