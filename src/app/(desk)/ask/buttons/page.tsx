import type { Metadata } from 'next';

export const metadata: Metadata = { title: 'Buttons' };

export default function NothingOpen() {
  return (
    <p className="mt-24 text-center font-serif text-[16.5px] text-soft">
      Choose a button to see what it brings in, or make a new one.
    </p>
  );
}
