'use client';
import { useEffect, useState } from 'react';
import { Button } from '../kit/button';
import type { CheckoutWords } from './checkout-words';

/** A code, folded in until somebody has one. */
export function CodeField({
  typed,
  counts,
  trouble,
  words,
  onUse,
}: {
  typed: string;
  counts: boolean;
  trouble: string | undefined;
  words: CheckoutWords;
  onUse: (code: string) => void;
}) {
  const [code, setCode] = useState(typed);
  useEffect(() => setCode(typed), [typed]);
  return (
    <details open={typed !== ''}>
      <summary className="min-h-11 py-2.5 text-[15px] underline underline-offset-3">{words.haveCode}</summary>
      <div className="flex gap-2">
        <input
          aria-label={words.code}
          className="input min-h-11 !text-[16px] uppercase"
          maxLength={60}
          autoComplete="off"
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
        {trouble ?? (counts ? words.codeCounts : '')}
      </p>
    </details>
  );
}
