'use client';
import { Button } from '@/ui/kit/button';

/** The customer's page failed: said plainly, with the one thing to do. */
export default function PayerTrouble({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  return (
    <main className="mx-auto mt-[12vh] max-w-[560px] px-4">
      <div className="sheet p-8" role="alert">
        <h1 className="title-screen">This page could not be shown</h1>
        <p className="mt-2 text-[15px]/[22px]">Nothing was charged by opening it. Try again in a moment.</p>
        {error.digest ? <p className="small mt-2 text-soft">Reference {error.digest}</p> : null}
        <Button look="go" className="mt-4 min-h-11" onClick={reset}>
          Try again
        </Button>
      </div>
    </main>
  );
}
