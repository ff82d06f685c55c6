import type { Journal } from '../journal';

/** How far the clock was moved, in milliseconds. */
export type ClockEvent = { readonly offsetMs: number };

/** A clock that can be moved on; it goes at the pace of the real one. */
export class MovableClock {
  private offsetMs: number;

  constructor(private readonly journal: Journal<ClockEvent>) {
    this.offsetMs = journal.past.at(-1)?.offsetMs ?? 0;
  }

  /** Milliseconds since the epoch. */
  readonly now = (): number => Date.now() + this.offsetMs;

  get offset(): number {
    return this.offsetMs;
  }

  /** Sets the clock to an instant. */
  set(instant: number): void {
    this.move(instant - Date.now());
  }

  /** Moves it on, or back where negative. */
  advance(milliseconds: number): void {
    this.move(this.offsetMs + milliseconds);
  }

  private move(offsetMs: number): void {
    this.offsetMs = offsetMs;
    this.journal.append({ offsetMs });
  }
}
