'use client';
import { Button } from '../kit/button';
import { usePress } from '../kit/press';

/** Gives something that was bought as a file once more. */
export function GiveAgain({ saleId, grantId }: { saleId: string; grantId: string }) {
  const { busy, pressed } = usePress();
  return (
    <Button
      look="small-link"
      disabled={busy}
      onClick={() => void pressed(`/api/given/${saleId}`, { grantId }, 'It can be downloaded anew')}
    >
      Give it once more
    </Button>
  );
}
