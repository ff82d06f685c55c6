/** So many addresses are remembered at most; beyond, those that were quiet for longest are forgotten first. */
const MOST_KNOWN = 50_000;

type Left = { left: number; at: number };

/**
 * What each address may still spend: `capacity` at once, and `perSecond` more with time. Pure but for what it remembers; the time is
 * given, in milliseconds that only grow.
 */
export class Allowance {
  readonly #known = new Map<string, Left>();

  constructor(
    readonly capacity: number,
    readonly perSecond: number,
    readonly mostKnown = MOST_KNOWN,
  ) {}

  /** How many addresses are remembered. */
  get known(): number {
    return this.#known.size;
  }

  #left(address: string, now: number): number {
    const known = this.#known.get(address);
    if (!known) return this.capacity;
    return Math.min(this.capacity, known.left + ((now - known.at) * this.perSecond) / 1000);
  }

  /** Takes one, whether or not there is one left: who goes on waits longer, up to twice the capacity. */
  spend(address: string, now: number): void {
    const left = Math.max(-this.capacity, this.#left(address, now) - 1);
    // Set anew, an address stands last: the first of the map are those that were quiet for longest.
    this.#known.delete(address);
    this.#known.set(address, { left, at: now });
    if (this.#known.size <= this.mostKnown) return;
    const [quietest] = this.#known.keys();
    if (quietest !== undefined) this.#known.delete(quietest);
  }

  /** Whole seconds until an address may spend again; 0 where it may now. */
  secondsToWait(address: string, now: number): number {
    const left = this.#left(address, now);
    return left >= 1 ? 0 : Math.ceil((1 - left) / this.perSecond);
  }
}
