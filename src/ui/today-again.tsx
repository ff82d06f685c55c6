'use client';
import { Button } from './kit/button';
import { usePress } from './kit/press';

/** Begins a job anew that was given up. */
export function TryAgain({ jobKey, strong }: { jobKey: string; strong: boolean }) {
  const { busy, pressed } = usePress();
  return (
    <Button
      look={strong ? 'go' : 'plain'}
      busy={busy}
      busyWords="One moment"
      onClick={() => void pressed('/api/stuck', { key: jobKey }, 'It is tried again now')}
    >
      Try again
    </Button>
  );
}
