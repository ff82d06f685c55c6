'use client';
import { Button } from '../kit/button';
import { usePress } from '../kit/press';

/** Asks the bank for what it has written of our accounts since the last time. */
export function FetchStatements() {
  const { busy, pressed } = usePress();
  return (
    <Button
      look="link"
      disabled={busy}
      onClick={() => void pressed('/api/bank/fetch', {}, 'Fetched: what the bank has written is here')}
    >
      {busy ? 'Asking the bank' : 'Fetch now'}
    </Button>
  );
}

/** Forgets something that was always so. */
export function ForgetRule({ id, called }: { id: string; called: string }) {
  const { busy, pressed } = usePress();
  return (
    <Button
      look="small-link"
      disabled={busy}
      aria-label={`Forget ${called}`}
      onClick={() =>
        void pressed(`/api/bank/rules/${id}`, {}, 'Forgotten: the next line of it is proposed again', 'DELETE')
      }
    >
      Forget
    </Button>
  );
}
