'use client';
import { Button } from '../kit/button';
import { usePress } from '../kit/press';

/** Pays out at once what is ready, whatever the schedule says. */
export function PayOutNow() {
  const { busy, pressed } = usePress();
  return (
    <Button look="go" busy={busy} onClick={() => void pressed('/api/payouts/now', {}, 'Paid out: it is on its way')}>
      Pay out now
    </Button>
  );
}
