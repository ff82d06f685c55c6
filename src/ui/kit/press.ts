'use client';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { type Answer, send, troubleOf } from './send';
import { say, sayTrouble } from './toasts';

/**
 * One press, one action: it is sent, what was done is said (unless the caller does), and the screen is read anew; what went wrong is the caller's
 * to show, or `pressed`'s, which says it in a toast. `keyed` adds a request's key, made once and kept until the action succeeded, so that it cannot happen twice.
 */
export function usePress({ keyed = false } = {}) {
  const router = useRouter();
  const key = useRef('');
  const [busy, setBusy] = useState(false);
  async function press<T>(
    path: string,
    body: object,
    done = '',
    method: 'POST' | 'PUT' | 'DELETE' = 'POST',
  ): Promise<Answer<T>> {
    setBusy(true);
    key.current ||= crypto.randomUUID();
    const answer = await send<T>(method, path, keyed ? { requestKey: key.current, ...body } : body);
    setBusy(false);
    if (answer.ok) {
      key.current = '';
      if (done) say(done);
      router.refresh();
    }
    return answer;
  }
  async function pressed(...of: Parameters<typeof press>): Promise<void> {
    const answer = await press(...of);
    if (!answer.ok) sayTrouble(troubleOf(answer));
  }
  return { busy, press, pressed };
}
