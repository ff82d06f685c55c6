'use client';
import { useState } from 'react';
import { typedMinor } from '@/core/invoice/read-paper';
import { minorDigits } from '@/core/money/currency';
import { jsonMinor, money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { isAllowed, isInGap, mostPart } from '@/core/payment/part-payment';
import { percentOf } from '@/core/tally/tally';
import { NumberInput } from '../kit/number-input';
import { AcceptTerms, TipChoice } from './before-paying';
import type { PayWords } from './pay-words';

/** What may be paid, and what is asked before; amounts in minor units. */
export type PayTerms = {
  /** Who is paid, by name. */
  readonly house: string;
  readonly currency: string;
  readonly locale: string;
  /** Due and not spoken for by somebody else's open attempt. */
  readonly dueMinor: number;
  readonly leastMinor: number;
  /** The part that is asked for now; null where that is the whole. */
  readonly askedMinor: number | null;
  readonly smallestMinor: number;
  readonly parts: boolean;
  readonly tip: readonly string[] | null;
  /** The terms' text still to be accepted; null where there is nothing to accept. */
  readonly terms: { readonly name: string; readonly text: string } | null;
  /** For whose approval a file still waits, in words; empty where none does. */
  readonly approveFirst: string;
};

/** How much is paid, with which tip, and what is agreed to; what keeps it from being paid, in words. */
export function usePayChoices(terms: PayTerms, words: PayWords) {
  const { currency, locale } = terms;
  // The whole, what is asked for now, or a part as typed.
  const [part, setPart] = useState<'whole' | 'asked' | { readonly typed: string }>(
    terms.askedMinor === null ? 'whole' : 'asked',
  );
  const [tip, setTip] = useState('');
  const [accepts, setAccepts] = useState(false);
  const digits = minorDigits(currency);
  const text = (minor: bigint | number) => moneyText(money(BigInt(minor), currency), locale);
  const typed = typeof part === 'object' ? part.typed : null;
  const chosen = part === 'asked' ? terms.askedMinor : terms.dueMinor;
  const amount = typed === null ? BigInt(chosen ?? terms.dueMinor) : typedMinor(typed, digits);
  const payable = {
    due: BigInt(terms.dueMinor),
    credit: 0n,
    least: BigInt(terms.leastMinor),
    greatest: BigInt(terms.dueMinor),
    smallest: BigInt(terms.smallestMinor),
  };
  const allowed = amount !== null && amount > 0n && isAllowed(amount, payable);
  const tipMinor = tip.endsWith('%')
    ? percentOf(amount ?? 0n, tip.slice(0, -1), 'tip')
    : (typedMinor(tip, digits) ?? 0n);
  // A part leaves nothing, or enough for another payment: so there is a gap below the whole.
  const mostMinor = jsonMinor(mostPart(payable));
  const sums = { least: terms.leastMinor, most: mostMinor, whole: terms.dueMinor, smallest: terms.smallestMinor };
  const filled = (said: string) =>
    Object.entries(sums).reduce((line, [name, minor]) => line.replaceAll(`{${name}}`, text(minor)), said);
  const inGap = amount !== null && isInGap(amount, payable);
  const span = filled(inGap ? words.partGap : words.partSpan);
  const hindrance = terms.approveFirst
    ? terms.approveFirst
    : terms.dueMinor === 0
      ? words.allUnderWay
      : !allowed
        ? span
        : terms.terms && !accepts
          ? words.firstAccept
          : null;
  return {
    terms,
    words,
    part,
    setPart,
    typed,
    tip,
    setTip,
    tipMinor,
    accepts,
    setAccepts,
    amount,
    allowed,
    span,
    hindrance,
    text,
    /** Begins again, once something was paid. */
    begin: () => {
      setPart(terms.askedMinor === null ? 'whole' : 'asked');
      setTip('');
    },
  };
}

/** How much, with which tip, and what is agreed to: above the card, in the order in which one decides. */
export function PayChoices({ of }: { of: ReturnType<typeof usePayChoices> }) {
  const { words, part, typed, tip, tipMinor, accepts, amount, allowed, span, text } = of;
  const choice = (on: boolean) => ({
    'data-state': on ? 'on' : 'off',
    'aria-pressed': on,
    className: 'min-h-11 flex-1',
  });
  return (
    <>
      {of.terms.parts && of.terms.leastMinor < of.terms.dueMinor ? (
        <fieldset>
          <legend className="sr-only">{words.partAmount}</legend>
          <div className="segment w-full">
            {of.terms.askedMinor === null ? null : (
              <button
                type="button"
                {...choice(part === 'asked')}
                className="min-h-11 flex-[1.5] whitespace-nowrap !px-1"
                onClick={() => of.setPart('asked')}
              >
                {words.askedNow.replace('{sum}', text(of.terms.askedMinor))}
              </button>
            )}
            <button type="button" {...choice(part === 'whole')} onClick={() => of.setPart('whole')}>
              {words.whole}
            </button>
            <button type="button" {...choice(typed !== null)} onClick={() => of.setPart({ typed: typed ?? '' })}>
              {words.part}
            </button>
          </div>
          {typed === null ? null : (
            <div className="mt-3">
              <label className="block">
                <span className="label mb-1 !text-[14px]">{words.partAmount}</span>
                <NumberInput
                  className="input min-h-11 text-right font-serif !text-[18px]"
                  autoComplete="off"
                  autoFocus
                  value={typed}
                  aria-invalid={typed !== '' && !allowed ? true : undefined}
                  aria-describedby="part-span"
                  onChange={(event) => of.setPart({ typed: event.target.value })}
                />
              </label>
              <p
                id="part-span"
                className={`mt-1 text-[14px]/5 ${typed !== '' && !allowed ? 'font-medium text-brick' : 'text-soft'}`}
              >
                {span}
              </p>
            </div>
          )}
        </fieldset>
      ) : null}
      {of.terms.tip ? (
        <TipChoice
          percents={of.terms.tip}
          tip={tip}
          onTip={of.setTip}
          withTip={tipMinor > 0n ? words.withTip.replace('{sum}', text((amount ?? 0n) + tipMinor)) : ''}
          words={words}
        />
      ) : null}
      {of.terms.terms ? (
        <AcceptTerms {...of.terms.terms} words={words} accepts={accepts} onAccepts={of.setAccepts} />
      ) : null}
    </>
  );
}
