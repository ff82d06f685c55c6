'use client';
import { useEffect } from 'react';
import { Button } from '../kit/button';

const tell = (kind: 'paid' | 'close') => window.parent.postMessage({ from: 'checkout', kind }, '*');

/** In a frame on the business's website: tells the page above that it was paid, and offers to go back to it. */
export function TellAbove({ label }: { label: string }) {
  useEffect(() => tell('paid'), []);
  return (
    <p className="px-5 pb-3 sm:px-11">
      <Button className="min-h-11" onClick={() => tell('close')}>
        {label}
      </Button>
    </p>
  );
}
