'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';

const GATHER_MS = 150;

/**
 * Renews what the screen shows whenever something of the business changes, and after the connection comes back.
 *
 * @param since when the server began to make this screen
 */
export function Live({ since }: { since: number }) {
  const router = useRouter();
  // The layout is made anew with each renewal: the line is opened once, as of the first.
  const [first] = useState(since);
  useEffect(() => {
    const line = new EventSource(`/api/live?since=${first}`);
    let timer: ReturnType<typeof setTimeout> | undefined;
    let opened = false;
    const renew = () => {
      clearTimeout(timer);
      // Without a connection a renewal would become a page load, and take the screen with all that is typed on it away.
      timer = setTimeout(async () => {
        const reachable = await fetch('/api/reach', { cache: 'no-store' }).then(
          ({ ok }) => ok,
          () => false,
        );
        if (reachable) router.refresh();
      }, GATHER_MS);
    };
    window.addEventListener('online', renew);
    line.onmessage = renew;
    // The server ends the line with the session: what is shown is then no longer for whoever looks on.
    line.onerror = () => {
      if (line.readyState === EventSource.CLOSED) renew();
    };
    line.onopen = () => {
      if (opened) renew();
      opened = true;
    };
    return () => {
      clearTimeout(timer);
      window.removeEventListener('online', renew);
      line.close();
    };
  }, [router, first]);
  return null;
}
