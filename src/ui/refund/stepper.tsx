'use client';
import { decimalText, scaledDecimal } from '@/core/money/decimal';
import { QUANTITY_SCALE } from '@/core/tally/tally';

const ONE = 10n ** BigInt(QUANTITY_SCALE);

/** What was typed as a quantity, scaled; null where it is none. */
export function typedQuantity(text: string): bigint | null {
  const plain = text.trim().replace(',', '.');
  if (plain === '') return 0n;
  try {
    return scaledDecimal(plain, QUANTITY_SCALE, 'bad_quantity', 'quantity');
  } catch {
    return null;
  }
}

/** How many of what is there go back: − and +, or typed. @param most what is left, scaled by 10^4 */
export function Stepper({
  label,
  value,
  most,
  onChange,
}: {
  label: string;
  value: string;
  most: bigint;
  onChange: (value: string) => void;
}) {
  const now = typedQuantity(value) ?? 0n;
  const to = (next: bigint) => onChange(decimalText(next < 0n ? 0n : next > most ? most : next, QUANTITY_SCALE));
  const isWrong = typedQuantity(value) === null || now > most;
  const side = 'grid size-7 place-items-center text-[15px] disabled:text-soft hover:bg-wash';
  return (
    <span
      className={`inline-grid grid-cols-[28px_44px_28px] overflow-hidden rounded-control border bg-sheet ${isWrong ? 'border-brick' : now > 0n ? 'border-plum' : 'border-edge'}`}
    >
      <button
        type="button"
        className={side}
        aria-label={`Less of ${label}`}
        disabled={now === 0n}
        onClick={() => to(now - ONE)}
      >
        −
      </button>
      <input
        className="h-7 w-full border-x border-rule bg-transparent text-center font-serif text-[15px] tabular-nums outline-offset-[-2px]"
        inputMode="decimal"
        aria-label={`How many of ${label} go back`}
        aria-invalid={isWrong}
        value={value}
        onFocus={(event) => event.target.select()}
        onChange={(event) => onChange(event.target.value)}
      />
      <button
        type="button"
        className={side}
        aria-label={`More of ${label}`}
        disabled={now >= most}
        onClick={() => to(now + ONE)}
      >
        +
      </button>
    </span>
  );
}
