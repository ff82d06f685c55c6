/** Pauses between tries in seconds, growing: a minute, five, half an hour, and so on over three days. */
const PAUSES = [60, 300, 1800, 7200, 18_000, 36_000, 50_400, 64_800, 80_640] as const;

/** How long is waited after a try that failed; null where it was the last. @param tries how many there were, from 1 on */
export const pauseAfter = (tries: number): number | null => PAUSES[tries - 1] ?? null;

/** For so long, in seconds, something is tried again. */
export const TRIED_SECONDS = PAUSES.reduce<number>((sum, pause) => sum + pause, 0);

/** A secret that was changed is good beside the new one for so long: the other program changes over without a gap. */
export const BOTH_SECRETS_HOURS = 24;
