'use client';
import { type KeyboardEvent, useEffect, useRef, useState, useSyncExternalStore } from 'react';
import { Finding } from './finding';
import { send } from './send';

/**
 * A search at one of the application's addresses, which takes `words`.
 *
 * @param path the address
 * @param open whether it is shown: it asks from the start, and nothing once it is closed
 * @param take what Enter does with what is found, where it was pressed before the answer came
 */
export function useFinding<T>(path: string, open: boolean, take: (found: readonly T[]) => void, least = 0) {
  const [finding] = useState(
    () =>
      new Finding<T>(
        (words, signal) => send('GET', `${path}?words=${encodeURIComponent(words)}`, undefined, { signal }),
        least,
      ),
  );
  const latest = useRef(take);
  latest.current = take;
  const view = useSyncExternalStore(finding.subscribe, finding.view, finding.view);
  useEffect(() => {
    if (open) finding.type(finding.view().words);
    return finding.stop;
  }, [open, finding]);
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== 'Enter' || event.nativeEvent.isComposing) return;
    if (finding.enter((found) => latest.current(found))) event.preventDefault();
  };
  return { ...view, type: finding.type, onKeyDown };
}
