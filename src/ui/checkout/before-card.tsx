'use client';
import type { Choice } from '@/core/offer/choice';
import type { ShownOffer, ShownQuote } from '@/core/offer/shown';
import { AcceptTerms, TipChoice } from '../payer/before-paying';
import type { CheckoutWords } from './checkout-words';
import { CodeField } from './code-field';
import { HowOften } from './how-often';

/** What is asked before the card: a code, a tip, how often, the terms. */
export function BeforeCard({
  offer,
  choice,
  quote,
  words,
  problemOf,
  change,
}: {
  offer: ShownOffer;
  choice: Choice;
  quote: ShownQuote;
  words: CheckoutWords;
  problemOf: (field: string) => string | undefined;
  change: (part: Partial<Choice>, ...fields: string[]) => void;
}) {
  return (
    <>
      {offer.codes ? (
        <CodeField
          asks={words.haveCode}
          label={words.code}
          typed={choice.code}
          does={quote.codeCounts ? words.codeCounts : ''}
          trouble={problemOf('code')}
          words={words}
          onUse={(code) => change({ code }, 'code')}
        />
      ) : null}
      {offer.takesVoucher ? (
        <CodeField
          asks={words.haveVoucher}
          label={words.voucherCode}
          typed={choice.voucher ?? ''}
          does={
            quote.voucher
              ? [words.voucherPaid.replace('{sum}', quote.voucher.paid), quote.voucher.stays].filter(Boolean).join(' ')
              : ''
          }
          trouble={problemOf('voucher')}
          words={words}
          onUse={(voucher) => change({ voucher }, 'voucher')}
        />
      ) : null}
      {offer.tip ? (
        <TipChoice
          percents={offer.tip}
          tip={choice.tip}
          onTip={(tip) => change({ tip }, 'tip')}
          withTip={quote.charged === quote.total || quote.voucher ? '' : words.withTip.replace('{sum}', quote.charged)}
          words={words}
        />
      ) : null}
      {offer.repeat ? (
        <HowOften
          offer={offer.repeat}
          later={quote.later}
          choice={choice}
          words={words}
          problemOf={problemOf}
          change={change}
        />
      ) : null}
      {offer.terms ? (
        <AcceptTerms
          {...offer.terms}
          words={words}
          accepts={choice.acceptsTerms}
          onAccepts={(acceptsTerms) => change({ acceptsTerms }, 'acceptsTerms')}
        />
      ) : null}
    </>
  );
}
