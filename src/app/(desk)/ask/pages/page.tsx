import type { Metadata } from 'next';

export const metadata: Metadata = { title: 'Hosted pages' };

export default function NothingOpen() {
  return (
    <p className="mt-24 text-center font-serif text-[16.5px] text-soft">
      Choose a hosted page to see what it brings in, or make a new one.
    </p>
  );
}
