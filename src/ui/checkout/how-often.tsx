'use client';
import type { Choice } from '@/core/offer/choice';
import type { ShownOffer } from '@/core/offer/shown';
import { Check, Radio } from '../kit/check';
import type { CheckoutWords } from './checkout-words';

/** How often it is paid, and what is agreed to where it is repeated. */
export function HowOften({
  offer,
  later,
  choice,
  words,
  problemOf,
  change,
}: {
  offer: NonNullable<ShownOffer['repeat']>;
  /** What is charged later, in words. */
  later: string;
  choice: Choice;
  words: CheckoutWords;
  problemOf: (field: string) => string | undefined;
  change: (part: Partial<Choice>, ...fields: string[]) => void;
}) {
  return (
    <div>
      <fieldset>
        <legend className="mb-1 text-[15px] font-medium">{words.howOften}</legend>
        {offer.choices.map(({ value, text }) => (
          <label key={value} className="flex min-h-11 items-center gap-3 border-b border-rule text-[16px]">
            <Radio
              tall
              name="repeat"
              checked={choice.repeat === value}
              onChange={() => change({ repeat: value }, 'repeat')}
            />
            {text}
          </label>
        ))}
        {problemOf('repeat') ? (
          <p className="mt-1 text-[14px]/5 font-medium text-brick">{problemOf('repeat')}</p>
        ) : null}
      </fieldset>
      {choice.repeat ? (
        <div className="mt-3">
          <p className="text-[14px]/5 text-soft">{offer.note}</p>
          <p className="mt-2 bg-wash px-3.5 py-2.5 font-serif text-[15px]/[22px]">
            {offer.agreement.replaceAll('{customer}', choice.name.trim() || '…')}
            {later ? <b className="mt-1.5 block font-semibold">{later}</b> : null}
          </p>
          <label className="flex min-h-11 items-center gap-3 text-[16px]">
            <Check
              tall
              checked={choice.agrees}
              onChange={(event) => change({ agrees: event.target.checked }, 'agrees')}
            />
            {words.agree}
          </label>
          {problemOf('agrees') ? (
            <p className="mt-1 text-[14px]/5 font-medium text-brick">{problemOf('agrees')}</p>
          ) : null}
        </div>
      ) : null}
    </div>
  );
}
