'use client';
import { useState } from 'react';
import { Button } from '../kit/button';
import { Field, FieldError } from '../kit/field';
import { usePress } from '../kit/press';
import { SelectField } from '../kit/select';
import { send, troubleOf } from '../kit/send';

/** Gives an account: the bank is asked whose it is, and brings two small sums there. */
export function GiveAccount({
  currencies,
  currency,
  path,
  bodyOf,
  holderPath,
  onClose,
}: {
  currencies: readonly string[];
  currency: string;
  path: string;
  bodyOf: (given: { currency: string; number: string }) => object;
  /** Where it is asked whose an account is; nothing where that is not told. */
  holderPath?: string;
  onClose?: () => void;
}) {
  const { busy, press } = usePress();
  const [number, setNumber] = useState('');
  const [code, setCode] = useState(currency);
  const [holder, setHolder] = useState('');
  const [trouble, setTrouble] = useState('');

  async function askWhose() {
    setHolder('');
    if (!holderPath || !number.trim()) return;
    const answer = await send<{ holder: string }>('GET', `${holderPath}?number=${encodeURIComponent(number)}`);
    setHolder(answer.ok ? `The bank has it in the name of ${answer.value.holder}.` : '');
    setTrouble(answer.ok ? '' : troubleOf(answer));
  }

  async function give() {
    const answer = await press(path, bodyOf({ currency: code, number }), 'Two small sums are on their way to it');
    setTrouble(answer.ok ? '' : troubleOf(answer));
    if (!answer.ok) return;
    setNumber('');
    setHolder('');
    onClose?.();
  }

  return (
    <form
      className="grid items-start gap-3 pt-3 sm:grid-cols-[minmax(0,1fr)_110px]"
      onSubmit={(event) => {
        event.preventDefault();
        void give();
      }}
    >
      <Field
        label="Number of the account"
        hint={holder || 'An IBAN, or the bank’s own number.'}
        value={number}
        maxLength={60}
        autoComplete="off"
        onChange={(event) => {
          setNumber(event.target.value);
          setTrouble('');
        }}
        onBlur={() => void askWhose()}
      />
      <SelectField label="Currency" value={code} onChange={(event) => setCode(event.target.value)}>
        {currencies.map((one) => (
          <option key={one} value={one}>
            {one}
          </option>
        ))}
      </SelectField>
      <div className="sm:col-span-2">
        {trouble ? <FieldError>{trouble}</FieldError> : null}
        <div className="mt-1 flex gap-4">
          <Button type="submit" look="go" busy={busy} disabled={!number.trim()}>
            Send the two sums
          </Button>
          {onClose ? (
            <Button look="link" onClick={onClose}>
              Cancel
            </Button>
          ) : null}
        </div>
      </div>
    </form>
  );
}
