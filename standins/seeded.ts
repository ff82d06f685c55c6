import { createHash } from 'node:crypto';

/** Everything that looks like chance in the stand-ins comes from here: the same seed and words give the same result. */
export class Seeded {
  constructor(private readonly seed: string) {}

  /** `length` hexadecimal digits, at most 64. */
  hex(words: string, length: number): string {
    return createHash('sha256').update(`${this.seed}|${words}`).digest('hex').slice(0, length);
  }

  /** A whole number from `least` to `most`, both included. */
  between(words: string, least: number, most: number): number {
    return least + (Number.parseInt(this.hex(words, 12), 16) % (most - least + 1));
  }
}
