'use client';
import type { Customer } from '@/core/customer/customer';
import { newCustomer } from '@/core/customer/customer';
import { CustomerForm } from '../customer/customer-form';
import { Dialog } from '../kit/dialog';

/** Adds a customer on the spot; what was typed into the search is already the name or the address. */
export function NewCustomer({
  words,
  home,
  onClose,
  onAdded,
}: {
  words: string;
  home: string;
  onClose: () => void;
  onAdded: (customer: Customer) => void;
}) {
  const start = words.includes('@') ? newCustomer('', { email: words }) : newCustomer(words);
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title="A new customer"
      about="Name and e-mail are enough to send an invoice."
    >
      <CustomerForm customer={null} start={start} home={home} short onDone={onAdded} onLeave={onClose} />
    </Dialog>
  );
}
