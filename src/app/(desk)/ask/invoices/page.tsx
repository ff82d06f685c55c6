import type { Metadata } from 'next';

export const metadata: Metadata = { title: 'Invoices' };

export default function NoInvoiceOpen() {
  return (
    <p className="mt-24 text-center font-serif text-[16.5px] text-soft">
      Choose an invoice to see it here, or press <kbd className="key">n</kbd> to write a new one.
    </p>
  );
}
