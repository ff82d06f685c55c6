'use client';
import { useState } from 'react';
import { Check } from '../kit/check';
import { NumberInput } from '../kit/number-input';
import type { PayWords } from './pay-words';

/** A tip: none, one of the suggested shares, or an own amount. @param tip `10%`, an amount as typed, or empty for none */
export function TipChoice({
  percents,
  tip,
  onTip,
  withTip,
  words,
}: {
  percents: readonly string[];
  tip: string;
  onTip: (tip: string) => void;
  /** What is paid with the tip, in words; empty without one. */
  withTip: string;
  words: Pick<PayWords, 'tipTitle' | 'noTip' | 'ownTip'>;
}) {
  const [own, setOwn] = useState(tip !== '' && !tip.endsWith('%'));
  const choice = (on: boolean, next: string, owned = false) => ({
    'data-state': on ? 'on' : 'off',
    'aria-pressed': on,
    className: 'min-h-11 flex-1',
    onClick: () => {
      setOwn(owned);
      onTip(next);
    },
  });
  return (
    <fieldset>
      <legend className="mb-1.5 text-[15px] font-medium">{words.tipTitle}</legend>
      <div className="segment w-full">
        <button type="button" {...choice(!own && tip === '', '')}>
          {words.noTip}
        </button>
        {percents.map((percent) => (
          <button key={percent} type="button" {...choice(!own && tip === `${percent}%`, `${percent}%`)}>
            {percent} %
          </button>
        ))}
        <button type="button" {...choice(own, '', true)}>
          {words.ownTip}
        </button>
      </div>
      {own ? (
        <NumberInput
          aria-label={words.ownTip}
          className="input mt-2 min-h-11 text-right font-serif !text-[18px]"
          autoComplete="off"
          value={tip}
          onChange={(event) => onTip(event.target.value)}
        />
      ) : null}
      {withTip ? <p className="mt-1.5 text-right text-[15px]">{withTip}</p> : null}
    </fieldset>
  );
}

/** The terms to be read, and the box that accepts them. */
export function AcceptTerms({
  name,
  text,
  accepts,
  onAccepts,
  words,
}: {
  name: string;
  text: string;
  accepts: boolean;
  onAccepts: (accepts: boolean) => void;
  words: Pick<PayWords, 'acceptTerms'>;
}) {
  return (
    <div>
      <details className="border border-rule px-3.5 py-2 text-[14px]/[20px]">
        <summary className="font-medium">{name}</summary>
        <p className="mt-2 max-h-[220px] overflow-auto whitespace-pre-line">{text}</p>
      </details>
      <label className="mt-2 flex min-h-11 items-center gap-3 text-[15px]">
        <Check tall checked={accepts} onChange={(event) => onAccepts(event.target.checked)} />
        {words.acceptTerms}
      </label>
    </div>
  );
}
