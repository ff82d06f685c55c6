import { call } from './http';

const TIMEOUT_MS = 10_000;

/** Where the present comes from: instants only; a business's day follows from its zone. */
export interface Clock {
  now(): Promise<Date>;
}

/** The computer's own clock. */
export const realClock: Clock = { now: async () => new Date() };

/**
 * The stand-ins' clock, which can be moved on. Its distance from the real one is good for `freshMs`, and the last known one
 * holds while nobody answers.
 */
export function movableClock(url: string, freshMs = 250): Clock {
  let offsetMs = 0;
  let askedAt = 0;
  let asking: Promise<void> | null = null;
  const ask = async () => {
    try {
      const { json } = await call(url, { timeoutMs: TIMEOUT_MS });
      const said = (json as { offsetMs?: unknown } | null)?.offsetMs;
      if (typeof said === 'number' && Number.isFinite(said)) offsetMs = said;
    } catch {
      // Kept as it was: a clock that jumps back would be worse.
    }
    askedAt = Date.now();
    asking = null;
  };
  return {
    now: async () => {
      if (Date.now() - askedAt >= freshMs) {
        asking ??= ask();
        await asking;
      }
      return new Date(Date.now() + offsetMs);
    },
  };
}
