import { type Answer, troubleOf } from './send';
import { Shown } from './shown';

/** What a search shows: `found` null before the first answer; `waiting` while what is typed has no answer yet. */
export type FindingView<T> = {
  readonly words: string;
  readonly found: readonly T[] | null;
  readonly trouble: string;
  readonly waiting: boolean;
};

export const PAUSE_MS = 120;

/**
 * A search while one types: asked after a breath, only the last answer counts, and Enter pressed before it has come waits for it.
 *
 * @param ask asks the server
 * @param least how many letters there have to be before it is asked
 */
export class Finding<T> extends Shown<FindingView<T>> {
  #asked = new AbortController();
  #timer: ReturnType<typeof setTimeout> | undefined;
  #entered: ((found: readonly T[]) => void) | null = null;

  constructor(
    readonly ask: (words: string, signal: AbortSignal) => Promise<Answer<readonly T[]>>,
    readonly least = 0,
  ) {
    super({ words: '', found: null, trouble: '', waiting: false });
  }

  readonly type = (words: string): void => {
    this.stop();
    const asks = words.trim().length >= this.least;
    this.show({ words, waiting: asks, ...(asks ? {} : { found: null, trouble: '' }) });
    if (asks) this.#timer = setTimeout(() => void this.#look(), PAUSE_MS);
  };

  async #look(): Promise<void> {
    const { signal } = this.#asked;
    const answer = await this.ask(this.view().words, signal);
    if (signal.aborted) return;
    const entered = this.#entered;
    this.#entered = null;
    this.show({ waiting: false, trouble: troubleOf(answer), ...(answer.ok ? { found: answer.value } : {}) });
    if (answer.ok) entered?.(answer.value);
  }

  /**
   * Enter was pressed. While what is typed has no answer, it waits for that.
   *
   * @param take what is done with the answer once it is there
   * @returns whether it waits; else the list's own marked row is meant
   */
  readonly enter = (take: (found: readonly T[]) => void): boolean => {
    if (!this.view().waiting) return false;
    this.#entered = take;
    return true;
  };

  /** Nothing that was asked counts any more. */
  readonly stop = (): void => {
    clearTimeout(this.#timer);
    this.#asked.abort();
    this.#asked = new AbortController();
    this.#entered = null;
    this.show({ waiting: false });
  };
}
