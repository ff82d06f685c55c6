'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useState, useTransition } from 'react';
import { typedMinor } from '@/core/invoice/read-paper';
import { minorDigits } from '@/core/money/currency';
import { jsonMinor, money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { isAllowed } from '@/core/payment/part-payment';
import { percentOf } from '@/core/tally/tally';
import { windowMemory } from '../kit/memory';
import { NumberInput, NumberReaderProvider } from '../kit/number-input';
import { send } from '../kit/send';
import { AcceptTerms, TipChoice } from './before-paying';
import { CardPay, type PayOpen } from './card-pay';
import type { PayWords } from './pay-words';
import { useWork } from './work';

/** What may be paid, and what is asked before; amounts in minor units. */
export type PayTerms = {
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
  /** Whether a file still waits for approval. */
  readonly approveFirst: boolean;
};

/** How much, with which tip, and what is agreed to: above the card, in the order in which one decides. */
export function PayPanel({
  token,
  open,
  terms,
  words,
}: {
  /** The link's own sign. */
  token: string;
  open: PayOpen;
  terms: PayTerms;
  words: PayWords;
}) {
  const router = useRouter();
  // Somebody looks at the invoice: noted the first time.
  useEffect(() => {
    const device = matchMedia('(max-width: 700px)').matches ? 'phone' : 'computer';
    void send('POST', `/api/pay/${token}/seen`, { device }, { keepalive: true });
  }, [token]);
  const place = `paying ${token}`;
  const [begun] = useState(() => (typeof window === 'undefined' ? '' : (windowMemory.getItem(place) ?? '')));
  const [thanked, setThanked] = useState('');
  const remember = (attempt: string) =>
    attempt ? windowMemory.setItem(place, attempt) : windowMemory.removeItem(place);
  // What is left is known once the page is read anew: until then the fields stay away. The sum says nothing of it, since a
  // page that comes back from the bank may have been read after the payment.
  const [reading, startReading] = useTransition();
  const rest = thanked !== '' && !reading && terms.dueMinor > 0;
  const [underWay, setUnderWay] = useState(false);
  const nextWork = useWork(`/api/pay/${token}`);
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
  const span = words.partSpan.replace('{least}', text(terms.leastMinor)).replace('{most}', text(terms.dueMinor));
  const hindrance = terms.approveFirst
    ? words.firstApprove
    : terms.dueMinor === 0
      ? words.allUnderWay
      : !allowed
        ? span
        : terms.terms && !accepts
          ? words.firstAccept
          : null;
  const choice = (on: boolean) => ({
    'data-state': on ? 'on' : 'off',
    'aria-pressed': on,
    className: 'min-h-11 flex-1',
  });
  return (
    <NumberReaderProvider value={{ locale, isMeant: words.isMeant }}>
      <div className="grid gap-5">
        {terms.parts && !underWay && terms.leastMinor < terms.dueMinor ? (
          <fieldset>
            <legend className="sr-only">{words.partAmount}</legend>
            <div className="segment w-full">
              {terms.askedMinor === null ? null : (
                <button
                  type="button"
                  {...choice(part === 'asked')}
                  className="min-h-11 flex-[1.5] whitespace-nowrap !px-1"
                  onClick={() => setPart('asked')}
                >
                  {words.askedNow.replace('{sum}', text(terms.askedMinor))}
                </button>
              )}
              <button type="button" {...choice(part === 'whole')} onClick={() => setPart('whole')}>
                {words.whole}
              </button>
              <button type="button" {...choice(typed !== null)} onClick={() => setPart({ typed: typed ?? '' })}>
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
                    onChange={(event) => setPart({ typed: event.target.value })}
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
        {terms.tip && !underWay ? (
          <TipChoice
            percents={terms.tip}
            tip={tip}
            onTip={setTip}
            withTip={tipMinor > 0n ? words.withTip.replace('{sum}', text((amount ?? 0n) + tipMinor)) : ''}
            words={words}
          />
        ) : null}
        {terms.terms && !underWay ? (
          <AcceptTerms {...terms.terms} words={words} accepts={accepts} onAccepts={setAccepts} />
        ) : null}
        {thanked && terms.dueMinor > 0 ? (
          <p role="status" className="border border-leaf px-3.5 py-2.5 text-[15px]/[22px]">
            <b className="font-semibold text-leaf">{words.paidThanks}</b>{' '}
            {words.receiptNumber.replace('{number}', thanked)}
          </p>
        ) : null}
        <CardPay
          {...open}
          begun={begun}
          words={words}
          door={{
            path: `/api/pay/${token}`,
            body: { amountMinor: jsonMinor(amount ?? 0n), tipMinor: jsonMinor(tipMinor), acceptsTerms: accepts },
            before: nextWork,
            statusQuery: (attempt) => `attempt=${attempt}`,
            withdraw: (attempt) => ({ attempt: attempt || null }),
            onAttempt: (attempt) => {
              remember(attempt);
              if (attempt) setThanked('');
            },
            rest,
            onUnderWay: setUnderWay,
            sum: allowed ? text((amount ?? 0n) + tipMinor) : '…',
            hindrance,
            onPaid: ({ receipt }) => {
              setThanked(receipt);
              setPart(terms.askedMinor === null ? 'whole' : 'asked');
              setTip('');
              startReading(() => router.refresh());
            },
            onChanged: (refusal) => {
              if (!refusal || refusal.code === 'already-paid' || refusal.code === 'amount-changed') router.refresh();
            },
          }}
        />
      </div>
    </NumberReaderProvider>
  );
}
