'use client';
import { Button } from '../kit/button';
import { NumberReaderProvider } from '../kit/number-input';
import { fieldsClass } from './card-fields';
import { PayChoices, type PayTerms, usePayChoices } from './pay-choices';
import type { PayWords } from './pay-words';

/** The same place in the proof: everything stands where the customer finds it and can be tried, and nothing can be charged. */
export function ProofPay({ fieldsUrl, terms, words }: { fieldsUrl: string; terms: PayTerms; words: PayWords }) {
  const choices = usePayChoices(terms, words);
  const { amount, tipMinor, allowed, hindrance, text } = choices;
  return (
    <NumberReaderProvider value={{ locale: terms.locale, isMeant: words.isMeant }}>
      <div className="grid gap-5">
        <PayChoices of={choices} />
        <div>
          <iframe title={words.cardFields} src={fieldsUrl} className={fieldsClass(fieldsUrl)} tabIndex={-1} />
          <Button size="tall" className="mt-2" disabled>
            {words.pay.replace('{sum}', allowed ? text((amount ?? 0n) + tipMinor) : '…')}
          </Button>
          {hindrance ? <p className="mt-1.5 text-center text-[14px]/5 text-soft">{hindrance}</p> : null}
          <p className="mt-2 text-center text-[13px]/5 text-soft">A proof: nothing can be paid here.</p>
        </div>
      </div>
    </NumberReaderProvider>
  );
}
