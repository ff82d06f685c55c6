'use client';
import { Button } from '@/ui/kit/button';
import { Trouble } from '@/ui/kit/trouble';

export default function DeskTrouble({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
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
