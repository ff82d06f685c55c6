import { listen } from '@/db/listen';
import { desk } from '@/flows/door/operation';

type Hearing = { readonly listeners: Map<string, Set<() => void>>; readonly lastChange: Map<string, number> };
const kept = globalThis as { dahliaHearing?: Hearing };

/** One database connection a process hears for all; made when the first desk is shown. */
function hearing(): Hearing {
  if (kept.dahliaHearing) return kept.dahliaHearing;
  const made: Hearing = { listeners: new Map(), lastChange: new Map() };
  kept.dahliaHearing = made;
  listen((businessId) => {
    made.lastChange.set(businessId, Date.now());
    for (const heard of made.listeners.get(businessId) ?? []) heard();
  });
  return made;
}

/** Begins to hear, if this process does not yet, and tells the moment: a screen made from now on can ask what it missed. */
export function hearingSince(): number {
  hearing();
  return Date.now();
}

/**
 * Calls `heard` whenever a row of this business has changed, whichever process changed it; at once, if one has since
 * `since` (milliseconds of this process's clock), so that nothing falls between making a screen and listening for it.
 * Returns how to stop.
 */
export const hearChanges = desk('own').run(
  async ({ businessId }, since: number, heard: () => void): Promise<() => void> => {
    const { listeners, lastChange } = hearing();
    const own = listeners.get(businessId) ?? new Set();
    listeners.set(businessId, own.add(heard));
    if ((lastChange.get(businessId) ?? 0) >= since) heard();
    return () => {
      own.delete(heard);
      if (own.size === 0) listeners.delete(businessId);
    };
  },
);
