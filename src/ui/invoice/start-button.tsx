'use client';
import { Button } from '../kit/button';
import { useMakeAndOpen } from '../make-and-open';

/** Starts an invoice; the key for it stands beside it. */
export function StartButton() {
  const { busy, compose } = useMakeAndOpen();
  return (
    <Button look="link" className="inline-flex items-center gap-2" disabled={busy} onClick={() => void compose()}>
      New invoice <kbd className="key no-underline">n</kbd>
    </Button>
  );
}
