import type { BankGroup } from './bank-shown';

const PETAL = 'M8 1.5c3.4 3 4.6 5.4 4.6 7.6S10.6 14.5 8 14.5s-4.6-3.2-4.6-5.4S4.6 4.5 8 1.5z';

/** How sure a line is, drawn as one petal: full, half, hollow, or dashed where nobody knows. The word stands beside it. */
export function Petal({ group }: { group: BankGroup }) {
  const isUnknown = group === 'unknown' || group === 'later';
  const isFull = group === 'sure' || group === 'matched';
  return (
    <svg
      width="15"
      height="15"
      viewBox="0 0 16 16"
      aria-hidden="true"
      className={isUnknown ? 'text-ochre' : 'text-plum'}
    >
      <path
        d={PETAL}
        fill={isFull ? 'currentColor' : 'none'}
        stroke="currentColor"
        strokeWidth="1.4"
        strokeDasharray={isUnknown ? '2 2' : undefined}
      />
      {group === 'likely' ? <path d="M8 1.5c-3.4 3-4.6 5.4-4.6 7.6S5.4 14.5 8 14.5z" fill="currentColor" /> : null}
    </svg>
  );
}
