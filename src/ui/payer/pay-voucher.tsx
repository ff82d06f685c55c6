'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Button } from '../kit/button';
import { useTakeVoucher } from '../voucher/take-voucher';
import type { PayWords } from './pay-words';
import { troubleWords } from './trouble-words';

/** A gift voucher on an invoice's page: looked at first, then used as far as it reaches. */
export function PayVoucher({
  token,
  currency,
  locale,
  accepts,
  words,
}: {
  token: string;
  currency: string;
  locale: string;
  /** Whether the terms are accepted, where there are some. */
  accepts: boolean;
  words: PayWords;
}) {
  const router = useRouter();
  const taking = useTakeVoucher(`/api/pay/${token}/voucher`, { currency, locale });
  const [trouble, setTrouble] = useState('');
  const [done, setDone] = useState('');
  const { pays, text } = taking;
  async function press() {
    setDone('');
    if (!pays) return setTrouble(troubleWords(words.troubles, await taking.look()));
    const paid = text(pays.paysMinor);
    const answer = await taking.use({ acceptsTerms: accepts });
    setTrouble(troubleWords(words.troubles, answer));
    if (!answer.ok) return;
    setDone(words.voucher.paid.replace('{sum}', paid));
    router.refresh();
  }
  return (
    <details className="mt-4 border-t border-rule pt-2">
      <summary className="min-h-11 py-2.5 text-[15px] underline underline-offset-3">{words.voucher.have}</summary>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void press();
        }}
      >
        <div className="flex gap-2">
          <input
            aria-label={words.voucher.code}
            aria-invalid={trouble ? true : undefined}
            className="input min-h-11 !text-[16px] uppercase"
            maxLength={60}
            autoComplete="off"
            spellCheck={false}
            value={taking.code}
            onChange={(event) => {
              taking.type(event.target.value);
              setTrouble('');
            }}
          />
          {pays ? null : (
            <Button type="submit" className="min-h-11" disabled={taking.busy || !taking.code.trim()}>
              {words.voucher.look}
            </Button>
          )}
        </div>
        <div aria-live="polite">
          {trouble ? <p className="mt-1 text-[14px]/5 font-medium text-brick">{trouble}</p> : null}
          {done ? <p className="mt-1 text-[14px]/5 font-medium text-leaf">{done}</p> : null}
          {pays ? (
            <p className="mt-2 text-[15px]/[22px]">
              {words.voucher.paid.replace('{sum}', text(pays.paysMinor))}{' '}
              {pays.worthMinor > pays.paysMinor
                ? words.voucher.stays.replace('{sum}', text(pays.worthMinor - pays.paysMinor))
                : ''}{' '}
              {pays.leftMinor > 0 ? `${words.voucher.leftToPay}: ${text(pays.leftMinor)}.` : ''}
            </p>
          ) : null}
        </div>
        {pays ? (
          <Button type="submit" size="tall" className="mt-3" disabled={taking.busy}>
            {words.voucher.use.replace('{sum}', text(pays.paysMinor))}
          </Button>
        ) : null}
      </form>
    </details>
  );
}
