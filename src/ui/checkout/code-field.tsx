'use client';
import { useEffect, useState } from 'react';
import { Button } from '../kit/button';
import type { CheckoutWords } from './checkout-words';

/** A code, of a discount or a voucher, folded in until somebody has one; what it does is said below. */
export function CodeField({
  asks,
  label,
  typed,
  does,
  trouble,
  words,
  onUse,
}: {
  /** What unfolds it. */
  asks: string;
  label: string;
  typed: string;
  /** What it does to the sum, in words; empty where it does nothing. */
  does: string;
  trouble: string | undefined;
  words: CheckoutWords;
  onUse: (code: string) => void;
}) {
  const [code, setCode] = useState(typed);
  useEffect(() => setCode(typed), [typed]);
  return (
    <details open={typed !== ''}>
      <summary className="min-h-11 py-2.5 text-[15px] underline underline-offset-3">{asks}</summary>
      <div className="flex gap-2">
        <input
          aria-label={label}
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
        {trouble ?? does}
      </p>
    </details>
  );
}
