import type { Metadata } from 'next';

export const metadata: Metadata = { title: 'Payments' };

export default function NoPaymentOpen() {
  return (
    <p className="mt-24 text-center font-serif text-[16.5px] text-soft">Choose a payment to see how it came about.</p>
  );
}
