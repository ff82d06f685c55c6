'use client';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { Button } from '../kit/button';
import type { JsonCharge } from './json-charge';

/** What can be done with the charges that are ticked. */
export function ChosenCharges({
  picked,
  busy,
  currency,
  locale,
  carry,
  again,
  onNone,
}: {
  picked: readonly JsonCharge[];
  busy: boolean;
  currency: string;
  locale: string;
  carry: () => Promise<void>;
  again: () => Promise<void>;
  onNone: () => void;
}) {
  const sum = picked.reduce((all, { minor }) => all + minor, 0);
  return (
    <div className="sticky top-0 z-10 flex flex-wrap items-center gap-4 border border-ink bg-sheet px-4 py-2">
      <b className="font-semibold">
        {picked.length} chosen, {moneyText(money(BigInt(sum), picked[0]?.currency ?? currency), locale)}
      </b>
      <span className="flex-1" />
      <Button
        disabled={busy || !picked.some(({ state, carried }) => state === 'charged' && !carried)}
        onClick={() => void carry()}
      >
        Mark as carried over
      </Button>
      <Button disabled={busy || !picked.some(({ state }) => state === 'refused')} onClick={() => void again()}>
        Charge again
      </Button>
      <Button look="link" onClick={onNone}>
        None
      </Button>
    </div>
  );
}
