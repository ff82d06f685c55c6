'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useState, useTransition } from 'react';
import { longDate } from '@/core/dates/date-text';
import { jsonMinor } from '@/core/money/money';
import { windowMemory } from '../kit/memory';
import { NumberReaderProvider } from '../kit/number-input';
import { send } from '../kit/send';
import { CardPay, type PayOpen } from './card-pay';
import { PayChoices, type PayTerms, usePayChoices } from './pay-choices';
import { PayVoucher } from './pay-voucher';
import type { PayWords } from './pay-words';
import { useWork } from './work';

/** How much, with which tip, and what is agreed to: above the card, in the order in which one decides. */
export function PayPanel({
  token,
  open,
  terms,
  byVoucher,
  words,
}: {
  /** The link's own sign. */
  token: string;
  open: PayOpen;
  terms: PayTerms;
  /** Whether a gift voucher can be used. */
  byVoucher: boolean;
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
  const choices = usePayChoices(terms, words);
  const { amount, tipMinor, accepts, allowed, hindrance, text } = choices;
  return (
    <NumberReaderProvider value={{ locale: terms.locale, isMeant: words.isMeant }}>
      <div className="grid gap-5">
        {underWay ? null : <PayChoices of={choices} />}
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
            agreement: words.debitAgreed
              .replace('{house}', terms.house)
              .replace('{sum}', allowed ? text((amount ?? 0n) + tipMinor) : '…'),
            day: (on) => longDate(on, terms.locale),
            onPaid: ({ receipt }) => {
              setThanked(receipt);
              choices.begin();
              startReading(() => router.refresh());
            },
            onChanged: (refusal) => {
              if (!refusal || refusal.code === 'already-paid' || refusal.code === 'amount-changed') router.refresh();
            },
          }}
        />
        {byVoucher && !underWay ? (
          <PayVoucher token={token} currency={terms.currency} locale={terms.locale} accepts={accepts} words={words} />
        ) : null}
      </div>
    </NumberReaderProvider>
  );
}
