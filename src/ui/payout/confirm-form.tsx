'use client';
import { useState } from 'react';
import { typedMinor } from '@/core/invoice/read-paper';
import { minorDigits } from '@/core/money/currency';
import { Button } from '../kit/button';
import { FieldError } from '../kit/field';
import { MoneyField } from '../kit/money-field';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';

/** The two small sums, as they stand on the account's statement. */
export function ConfirmForm({
  currency,
  path,
  bodyOf,
}: {
  currency: string;
  path: string;
  bodyOf: (sums: readonly number[]) => object;
}) {
  const { busy, press } = usePress();
  const [sums, setSums] = useState(['', '']);
  const [trouble, setTrouble] = useState('');
  const set = (at: number, text: string) => setSums(sums.map((one, index) => (index === at ? text : one)));

  async function confirm() {
    const read = sums.map((text) => typedMinor(text, minorDigits(currency)));
    if (read.some((minor) => minor === null || minor <= 0n))
      return setTrouble('Write both sums as they stand on the statement, such as 0.37.');
    const answer = await press(path, bodyOf(read.map(Number)), 'Confirmed: money can go there now');
    setTrouble(answer.ok ? '' : troubleOf(answer));
  }

  return (
    <form
      className="mt-2"
      onSubmit={(event) => {
        event.preventDefault();
        void confirm();
      }}
    >
      <p className="small text-soft">
        Two sums below one unit come within two banking days. Their words begin with the business’s name.
      </p>
      <div className="mt-1.5 flex flex-wrap items-end gap-3">
        {sums.map((sum, at) => (
          <MoneyField
            key={at}
            className="w-[110px]"
            label={at === 0 ? 'First sum' : 'Second sum'}
            currency={currency}
            value={sum}
            onChange={(event) => set(at, event.target.value)}
          />
        ))}
        <Button type="submit" busy={busy}>
          Confirm
        </Button>
      </div>
      {trouble ? <FieldError>{trouble}</FieldError> : null}
    </form>
  );
}
