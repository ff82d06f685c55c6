'use client';
import type { Route } from 'next';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { send } from '../send';
import { sayTrouble } from '../toasts';

/** Starts an invoice; the key for it stands beside it. */
export function StartButton() {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  async function start() {
    setBusy(true);
    const answer = await send<{ id: string }>('POST', '/api/invoices', {});
    setBusy(false);
    if (answer.ok) router.push(`/ask/compose/${answer.value.id}` as Route);
    else sayTrouble(answer.words);
  }
  return (
    <button type="button" className="link inline-flex items-center gap-2" disabled={busy} onClick={() => void start()}>
      New invoice <kbd className="key no-underline">n</kbd>
    </button>
  );
}
