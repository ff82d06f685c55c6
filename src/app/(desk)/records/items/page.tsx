import type { Metadata } from 'next';

export const metadata: Metadata = { title: 'Items' };

export default function NoItemOpen() {
  return (
    <p className="mt-24 text-center font-serif text-[16.5px] text-soft">Choose an item to see it here, or add one.</p>
  );
}
