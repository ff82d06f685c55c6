'use client';
import { useRouter } from 'next/navigation';
import { startTransition, useEffect, useState } from 'react';
import { Button } from '@/ui/kit/button';
import { Trouble } from '@/ui/kit/trouble';

/** Since when each screen was last asked for once more by itself: a second failure is shown. */
const askedAgain = new Map<string, number>();
const ONCE_IN_MS = 30_000;

export default function DeskTrouble({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  const router = useRouter();
  // The server names what failed there. Without a name its answer broke off on the way: it is asked for once more, and not told.
  const [isAsking, setAsking] = useState(!error.digest);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each failure
  useEffect(() => {
    if (!isAsking) return;
    const { pathname } = location;
    if (performance.now() - (askedAgain.get(pathname) ?? -ONCE_IN_MS) < ONCE_IN_MS) return setAsking(false);
    askedAgain.set(pathname, performance.now());
    startTransition(() => {
      router.refresh();
      reset();
    });
  }, []);
  if (isAsking) return null;
  return (
    <div className="mx-auto mt-10 max-w-[640px] px-4">
      <div className="sheet">
        <Trouble
          title="This screen could not be made"
          words="Nothing was changed. Try again; if it stays, tell us the reference."
          {...(error.digest ? { reference: error.digest } : {})}
        >
          <Button look="go" onClick={reset}>
            Try again
          </Button>
        </Trouble>
      </div>
    </div>
  );
}
