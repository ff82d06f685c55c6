'use client';
import { useState } from 'react';
import { lengthTyped, type Measures, typedLength, typedWeight, weightTyped } from '@/core/parcel/measure';
import { type Around, Labelled } from '../kit/field';

type Given = Around & { value: number; measures: Measures; className?: string; onChange: (value: number) => void };

/** A measure that is typed as people write it and kept as a whole number; what is not read is said, and the number stays as it was. */
function Measured({
  shown,
  read,
  say,
  onChange,
  error,
  ...around
}: Omit<Given, 'value' | 'measures'> & { shown: string; read: (text: string) => number | null; say: string }) {
  const [typed, setTyped] = useState<string | null>(null);
  const wrong = typed !== null && typed.trim() !== '' && read(typed) === null;
  return (
    <Labelled {...around} error={wrong ? say : error}>
      {(tied) => (
        <input
          {...tied}
          className="input"
          autoComplete="off"
          value={typed ?? shown}
          onChange={(event) => {
            setTyped(event.target.value);
            const number = event.target.value.trim() === '' ? 0 : read(event.target.value);
            if (number !== null) onChange(number);
          }}
          onBlur={() => (wrong ? undefined : setTyped(null))}
        />
      )}
    </Labelled>
  );
}

/** A weight, kept in grams: `350 g`, `2.4 kg`, `13 lb 4 oz`. */
export const WeightField = ({ value, measures, ...given }: Given) => (
  <Measured
    {...given}
    shown={weightTyped(value, measures)}
    read={(text) => typedWeight(text, measures)}
    say={measures === 'metric' ? 'Write it as 350 g or 2.4 kg.' : 'Write it as 12 oz or 3 lb 4 oz.'}
  />
);

/** A length, kept in millimetres, typed in centimetres or inches. */
export const LengthField = ({ value, measures, label, ...given }: Given) => (
  <Measured
    {...given}
    label={`${label} (${measures === 'metric' ? 'cm' : 'in'})`}
    shown={value === 0 ? '' : lengthTyped(value, measures)}
    read={(text) => typedLength(text, measures)}
    say="Write it as a number, such as 32.5."
  />
);
