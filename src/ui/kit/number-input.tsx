'use client';
import { type ComponentProps, createContext, useContext, useRef, useState } from 'react';
import { decimalSignOf, readTyped, spokenDecimal } from '@/core/money/typed';
import { useDeskLocale } from './at-desk';
import { type Around, Labelled } from './field';

export type NumberProps = Omit<ComponentProps<'input'>, 'type' | 'value' | 'onChange' | 'defaultValue'> & {
  /** A plain decimal, or what was typed where that is none. */
  value: string;
  onChange: (event: { target: { value: string } }) => void;
};

/** Who types numbers below: how they write them, and what the buttons say that take a reading (`{number}`). */
export type NumberReader = { readonly locale: string; readonly isMeant: string };

const Reader = createContext<NumberReader | null>(null);

/** Says so where somebody else than the business types. */
export const NumberReaderProvider = Reader.Provider;

/**
 * A number, typed as its reader writes numbers and kept as a plain decimal. What can be read in two ways is read their way, and
 * is asked at once: what was read, and the other way.
 */
export function NumberInput({ value, onChange, onBlur, ...input }: NumberProps) {
  const desk = useDeskLocale();
  const { locale, isMeant } = useContext(Reader) ?? { locale: desk, isMeant: '{number} is meant' };
  const sign = decimalSignOf(locale);
  const [typed, setTyped] = useState<string | null>(null);
  const [other, setOther] = useState<string | null>(null);
  // A value from elsewhere (an item was chosen, a form began anew) takes the place of what was typed.
  const given = useRef(value);
  const isOwn = given.current === value;
  const tell = (text: string) => {
    given.current = text;
    onChange({ target: { value: text } });
  };
  return (
    <span
      className={`relative min-w-0 ${/\bblank\b/.test(input.className ?? '') ? 'inline-block flex-none' : 'block w-full'}`}
    >
      <input
        inputMode="decimal"
        autoComplete="off"
        {...input}
        value={isOwn && typed !== null ? typed : spokenDecimal(value, sign)}
        onChange={(event) => {
          const read = readTyped(event.target.value, sign);
          setTyped(event.target.value);
          setOther(read.other);
          tell(read.text);
        }}
        onBlur={(event) => {
          setTyped(null);
          onBlur?.(event);
        }}
      />
      {other !== null && isOwn ? (
        <span
          className="menu small !min-w-0 absolute bottom-full right-0 z-30 mb-0.5 flex w-max gap-2.5 !px-2.5 !py-1.5"
          role="status"
        >
          {[value, other].map((reading) => (
            <button
              key={reading}
              type="button"
              className={`link ${reading === value ? 'font-semibold' : ''}`}
              onClick={() => {
                setOther(null);
                if (reading !== value) tell(reading);
              }}
            >
              {isMeant.replace('{number}', spokenDecimal(reading, sign))}
            </button>
          ))}
        </span>
      ) : null}
    </span>
  );
}

/** The same with its label, its hint and its error. */
export function NumberField({ label, error, hint, className, ...input }: NumberProps & Around) {
  return (
    <Labelled label={label} error={error} hint={hint} className={className}>
      {(tied) => <NumberInput className="input" {...tied} {...input} />}
    </Labelled>
  );
}
