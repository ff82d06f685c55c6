import type { Metadata } from 'next';

export const metadata: Metadata = { title: 'Daily closing' };

export default function NoBatchOpen() {
  return (
    <p className="mt-24 text-center font-serif text-[16.5px] text-soft">
      Choose a day to see what its card payments come to, and whether the processor’s book says the same.
    </p>
  );
}
