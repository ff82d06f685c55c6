import { X } from 'lucide-react';

/** Takes a row of the sums away. */
export const Without = ({ name, onDrop }: { name: string; onDrop: () => void }) => (
  <button type="button" className="grid size-6 flex-none place-items-center text-soft hover:text-ink" onClick={onDrop}>
    <X size={13} strokeWidth={1.6} aria-hidden="true" />
    <span className="sr-only">Without {name}</span>
  </button>
);

/** A field that a figure is written into, on paper. */
export const SMALL_BLANK = 'blank !w-[86px] !text-[15.5px]/[21px] text-right';
