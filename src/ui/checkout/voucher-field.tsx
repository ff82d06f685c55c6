'use client';
import { useEffect, useState } from 'react';
import type { ShownQuote } from '@/core/offer/shown';
import { Button } from '../kit/button';
import type { CheckoutWords } from './checkout-words';

/** A gift voucher, folded in until somebody has one; what it pays and what stays on it is said. */
export function VoucherField({
  typed,
  counts,
  trouble,
  words,
  onUse,
}: {
  typed: string;
  counts: ShownQuote['voucher'];
  trouble: string | undefined;
  words: CheckoutWords;
  onUse: (code: string) => void;
}) {
  const [code, setCode] = useState(typed);
  useEffect(() => setCode(typed), [typed]);
  return (
    <details open={typed !== ''}>
      <summary className="min-h-11 py-2.5 text-[15px] underline underline-offset-3">{words.haveVoucher}</summary>
      <div className="flex gap-2">
        <input
          aria-label={words.voucherCode}
          aria-invalid={trouble ? true : undefined}
          className="input min-h-11 !text-[16px] uppercase"
          maxLength={60}
          autoComplete="off"
          autoCapitalize="characters"
          spellCheck={false}
          value={code}
          onChange={(event) => setCode(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            event.preventDefault();
            onUse(code);
          }}
        />
        <Button className="min-h-11" onClick={() => onUse(code)}>
          {words.useCode}
        </Button>
      </div>
      <p aria-live="polite" className={`mt-1 text-[14px]/5 font-medium ${trouble ? 'text-brick' : 'text-leaf'}`}>
        {trouble ??
          (counts ? [words.voucherPaid.replace('{sum}', counts.paid), counts.stays].filter(Boolean).join(' ') : '')}
      </p>
    </details>
  );
}
