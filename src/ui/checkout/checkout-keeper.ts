import type { Choice } from '@/core/offer/choice';
import type { ShownQuote } from '@/core/offer/shown';
import type { Memory } from '../kit/memory';
import type { Answer } from '../kit/send';
import { Shown } from '../kit/shown';
import type { AttemptStatus } from '../payer/card-payment';

/** What is kept: a checkout under way, or the order by which the last one here was paid. */
type Kept = { readonly key: string; readonly choice: Choice } | { readonly paid: string };

/** What is shown of a checkout. */
export type CheckoutView = {
  readonly choice: Choice;
  readonly quote: ShownQuote;
  /** Whether the sum of what is chosen is still to come. */
  readonly waiting: boolean;
  /** Under which this checkout is paid; empty until the page has begun. */
  readonly key: string;
  /** What became of it, where something was tried before; null until that is known. */
  readonly status: AttemptStatus | null;
  readonly touched: ReadonlySet<string>;
  readonly asked: boolean;
  /** The order that was paid here before, in this tab; empty for none. */
  readonly paid: string;
};

/** What a checkout reaches. */
export type CheckoutReach = {
  readonly quote: (choice: Choice, token: string, signal: AbortSignal) => Promise<Answer<ShownQuote>>;
  readonly status: (key: string) => Promise<Answer<AttemptStatus>>;
  /** This tab's own memory, and the name of this checkout in it. */
  readonly store: Memory;
  readonly place: string;
  readonly newKey: () => string;
};

export const PAUSE_MS = 180;

/**
 * What a payer chose and wrote, kept in this tab so that a reload or the way over the bank loses nothing, and worked out anew by
 * the server with every change: the newest answer counts, an older one that comes late does not.
 */
export class CheckoutKeeper extends Shown<CheckoutView> {
  #timer: ReturnType<typeof setTimeout> | undefined;
  #working = new AbortController();
  #token: string;

  constructor(
    readonly begun: Choice,
    first: ShownQuote,
    readonly reach: CheckoutReach,
  ) {
    super({
      choice: begun,
      quote: first,
      waiting: false,
      key: '',
      status: null,
      touched: new Set(),
      asked: false,
      paid: '',
    });
    this.#token = first.token;
  }

  /**
   * The page begins in the browser: what this tab knows already, and what became of it where something was tried.
   *
   * @param early what stood in the fields before the page listened, on a slow connection
   */
  begin(early: Partial<Choice> = {}): void {
    const before = this.#kept();
    const known = before && 'key' in before ? before : null;
    this.show({ key: known?.key ?? this.reach.newKey(), paid: before && 'paid' in before ? before.paid : '' });
    if (!known) {
      this.show({ status: { state: 'none' } });
      if (Object.keys(early).length > 0) this.change(early);
      else if (!this.view().paid) this.#keep();
      return;
    }
    // What was agreed to is agreed to again by who sees it now.
    this.change({ ...known.choice, acceptsTerms: false, agrees: false });
    void this.reach
      .status(known.key)
      .then((answer) => this.show({ status: answer.ok ? answer.value : { state: 'none' } }));
  }

  #kept(): Kept | null {
    try {
      return JSON.parse(this.reach.store.getItem(this.reach.place) ?? 'null') as Kept | null;
    } catch {
      return null;
    }
  }

  #keep(): void {
    const { key, choice } = this.view();
    this.#write({ key, choice });
  }

  #write(kept: Kept): void {
    try {
      this.reach.store.setItem(this.reach.place, JSON.stringify(kept));
    } catch {
      // Full or forbidden: a reload then begins anew.
    }
  }

  /** Takes a change over. @param fields places that somebody has been at: what is wrong there is said from now on */
  readonly change = (part: Partial<Choice>, ...fields: string[]): void => {
    const { choice, touched } = this.view();
    this.show({
      choice: { ...choice, ...part },
      waiting: true,
      ...(fields.length > 0 ? { touched: new Set([...touched, ...fields]) } : {}),
    });
    if (this.view().key) this.#keep();
    clearTimeout(this.#timer);
    this.#working.abort();
    this.#timer = setTimeout(this.hasten, PAUSE_MS);
  };

  /** Works out the newest sum at once. */
  readonly hasten = (): void => void this.#work();

  async #work(): Promise<void> {
    clearTimeout(this.#timer);
    this.#working.abort();
    this.#working = new AbortController();
    const { signal } = this.#working;
    const answer = await this.reach.quote(this.view().choice, this.#token, signal);
    if (!answer.ok || signal.aborted) return;
    this.#token = answer.value.token;
    this.show({ quote: answer.value, waiting: false, touched: new Set([...this.view().touched, ...this.#left]) });
    this.#left = [];
  }

  /** Works the sum out anew, against what holds now. */
  readonly renew = (): void => {
    this.#token = '';
    this.hasten();
  };

  // Fields that were left while their check was still to come.
  #left: string[] = [];

  /**
   * Leaves a field: from now on what is wrong with it is said, once what was typed is checked. What the check before said of it would only
   * flash up, and move what is just being pressed.
   */
  readonly leave = (field: string): void => {
    if (this.view().waiting) this.#left.push(field);
    else this.show({ touched: new Set([...this.view().touched, field]) });
  };

  /** From now on everything that is missing is said. */
  readonly askForAll = (): void => this.show({ asked: true });

  /** What is wrong at a place, once somebody was there or wants to pay. */
  readonly problemOf = (field: string): string | undefined => {
    const { asked, touched, quote } = this.view();
    return asked || touched.has(field) ? quote.problems.find((problem) => problem.field === field)?.words : undefined;
  };

  /** This checkout has been paid: the next one in this tab is another, and says so. @param order its token */
  readonly forget = (order: string): void => this.#write({ paid: order });

  /** The page is left. */
  close(): void {
    clearTimeout(this.#timer);
    this.#working.abort();
  }
}
