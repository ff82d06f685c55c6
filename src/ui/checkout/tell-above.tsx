'use client';
import { useEffect, useState } from 'react';
import { Button } from '../kit/button';

/** Tells the page above how it stands: nothing is under way, the bank is asked, it was paid, or the payer wants to go back to it. */
export const tellAbove = (kind: 'ready' | 'waiting' | 'paid' | 'close') =>
  window.parent.postMessage({ from: 'checkout', kind }, '*');

/**
 * In a frame on the business's website: tells the page above that it was paid, and offers to go back to it. The bank sends the payer back
 * to a window of its own, where there is nothing above: that one can be closed.
 */
export function TellAbove({ label, alone }: { label: string; alone: string }) {
  const [isAlone, setAlone] = useState(false);
  useEffect(() => {
    if (window.parent === window) setAlone(true);
    else tellAbove('paid');
  }, []);
  return (
    <p className="px-5 pb-3 sm:px-11">
      {isAlone ? (
        <b className="font-semibold text-[16px]/6">{alone}</b>
      ) : (
        <Button className="min-h-11" onClick={() => tellAbove('close')}>
          {label}
        </Button>
      )}
    </p>
  );
}
