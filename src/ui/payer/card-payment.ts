import type { CalendarDate } from '@/core/dates/calendar-date';
import type { RefusalReason } from '@/core/payment/outcome';
import type { Answer } from '../kit/send';
import { Shown } from '../kit/shown';

/** What the server says of an attempt. */
export type AttemptStatus =
  | { state: 'paid'; receipt: string; order?: string }
  | { state: 'refused'; words: string; reason: RefusalReason }
  | { state: 'approval'; url: string; order?: string }
  | { state: 'checking' }
  /** A bank debit is under way: known on that day, of that account. */
  | { state: 'collecting'; on: CalendarDate; account: string }
  | { state: 'none' };

/** Where a payment is sent, asked about and withdrawn, and what this press would pay. */
export type PayDoor = {
  readonly path: string;
  /** What is sent beside the attempt's key and the card's token. */
  readonly body: object;
  /** What has to be worked out before an attempt is sent; null where that failed. */
  readonly before?: () => Promise<object | null>;
  /** What the payment is asked about by; `attempt` is this page's own key. */
  readonly statusQuery: (attempt: string) => string;
  /** What an attempt is taken back by; `attempt` is this page's own key. */
  readonly withdraw: (attempt: string) => object;
  /** The attempt that this page has begun, to be found again after the bank or a reload; empty once it has ended. */
  readonly onAttempt?: (attempt: string) => void;
  /** What the button says where nothing is to be paid: no card is asked for then. */
  readonly free?: string;
  /** The sum, written out. */
  readonly sum: string;
  /** What whoever pays from a bank account agrees to; none where no account is taken. */
  readonly agreement?: string;
  /** A day, written out as its reader writes days. */
  readonly day?: (on: CalendarDate) => string;
  /** Whether more is due after what was paid. */
  readonly rest?: boolean;
  /** Why it cannot be paid like this, or null. */
  readonly hindrance: string | null;
  /** Whether the sum of what is filled in now is still to come; `onAwaited` asks for it at once. */
  readonly waiting?: boolean;
  readonly onAwaited?: () => void;
  /** The button was pressed all the same. */
  readonly onHindered?: () => void;
  /** Whether the page stands in a frame on another website, and stays there while the bank is asked. */
  readonly framed?: boolean;
  /** The outcome of an attempt is open, or nothing is under way (any more). */
  readonly onUnderWay?: (isUnderWay: boolean) => void;
  readonly onApproval?: (status: Extract<AttemptStatus, { state: 'approval' }>) => void;
  readonly onPaid: (status: Extract<AttemptStatus, { state: 'paid' }>) => void;
  /** What is shown may be out of date; `refusal` is what the answer said, where one did. */
  readonly onChanged: (refusal?: Extract<Answer<unknown>, { ok: false }>) => void;
};

export type Stage = 'ready' | 'sending' | 'checking' | 'approval' | 'collecting' | 'paid';

/** What is shown of a payment: how far it is, what went wrong last, the bank's address while it is asked, and what is said of a debit. */
export type PaymentView = {
  readonly stage: Stage;
  readonly trouble: string | null;
  readonly bank: string;
  readonly collecting: string;
};

/** What a payment reaches. */
export type PaymentReach = {
  /** The newest door: what is filled in changes while the payment is under way. */
  readonly door: () => PayDoor;
  readonly ask: (path: string) => Promise<Answer<AttemptStatus>>;
  readonly post: (path: string, body: object) => Promise<Answer<AttemptStatus>>;
  /** The card's token from the processor's own fields, or what is wrong with what stands there. */
  readonly tokenise: () => Promise<{ token: string } | { trouble: string | null }>;
  /** The bank asks the payer: shown at once where the page may be left, else the payer opens it beside. */
  readonly toBank: (status: Extract<AttemptStatus, { state: 'approval' }>) => void;
  readonly newKey: () => string;
  readonly words: {
    readonly refused: (reason: RefusalReason) => string;
    readonly trouble: (answer: Extract<Answer<unknown>, { ok: false }>) => string;
    readonly processorAway: string;
    readonly collecting: (account: string, on: CalendarDate) => string;
  };
};

const SUM_LOOK_MS = 30;
const SUM_LOOKS = 200;
const NO_ATTEMPT = '00000000-0000-4000-8000-000000000000';

/** A payment by card: whatever happens to the page, an attempt is made once and found again. */
export class CardPayment extends Shown<PaymentView> {
  // Kept until the attempt has ended: a second press, or an answer that was lost, is the same attempt.
  #attempt = '';
  #hindrance: string | null = null;

  /**
   * @param pending the bank's address, or `checking`, where an attempt of before is still open
   * @param collecting what is said of it where it is a bank debit; empty for none
   */
  constructor(
    pending: string | null,
    refused: string | null,
    readonly reach: PaymentReach,
    collecting = '',
  ) {
    super({
      collecting,
      stage: collecting ? 'collecting' : pending === null ? 'ready' : pending === 'checking' ? 'checking' : 'approval',
      trouble: pending === null ? refused : null,
      bank: pending && pending !== 'checking' ? pending : '',
    });
  }

  /** Whether the outcome is open: then it is asked for again and again. */
  get isOpen(): boolean {
    return this.view().stage === 'checking' || this.view().stage === 'approval';
  }

  /** What hindered the last press is put right, or is something else now: that is said instead. */
  readonly hindered = (now: string | null): void => {
    if (this.#hindrance === null || this.view().trouble !== this.#hindrance) return;
    this.#hindrance = now;
    this.show({ trouble: now });
  };

  /** What is shown of an attempt that ended while this page asked. */
  readonly say = (trouble: string | null): void => this.show({ trouble });

  /**
   * An attempt of this page that began before the bank, or a reload: what became of it is found out.
   *
   * @param isTold the page says already that a card was refused: the fields stay while it is asked, since somebody may be typing in them
   */
  readonly resume = (attempt: string, isTold = false): void => {
    if (this.view().stage !== 'ready' || this.#attempt) return;
    if (isTold) {
      this.#finding = this.#findOut(attempt);
      return;
    }
    this.#attempt = attempt;
    this.show({ stage: 'checking' });
    void this.look();
  };

  // A press while it is asked waits for the answer: nothing is paid beside an attempt that goes on.
  #finding: Promise<void> = Promise.resolve();

  async #findOut(attempt: string): Promise<void> {
    const { path, statusQuery } = this.reach.door();
    const answer = await this.reach.ask(`${path}/status?${statusQuery(attempt)}`);
    if (!answer.ok) return;
    if (answer.value.state === 'approval' || answer.value.state === 'checking') this.#attempt = attempt;
    this.#take(answer.value);
  }

  #take(status: AttemptStatus): void {
    if (status.state !== 'approval' && status.state !== 'checking') this.reach.door().onAttempt?.('');
    if (status.state === 'paid') {
      this.show({ stage: 'paid' });
      this.reach.door().onPaid(status);
    } else if (status.state === 'refused') {
      this.#attempt = '';
      this.show({ stage: 'ready', trouble: this.reach.words.refused(status.reason) });
    } else if (status.state === 'collecting') {
      this.#attempt = '';
      this.show({ stage: 'collecting', collecting: this.reach.words.collecting(status.account, status.on) });
      this.reach.door().onChanged();
    } else if (status.state === 'approval') this.show({ stage: 'approval', bank: status.url });
    else if (status.state === 'checking') this.show({ stage: 'checking' });
    else {
      this.#attempt = '';
      this.show({ stage: 'ready' });
    }
  }

  /** Asks how the open attempt stands; a lost answer says nothing. */
  readonly look = async (): Promise<void> => {
    const { path, statusQuery, onChanged } = this.reach.door();
    const answer = await this.reach.ask(`${path}/status?${statusQuery(this.#attempt || NO_ATTEMPT)}`);
    if (!answer.ok || !this.isOpen) return;
    if (answer.value.state === 'none') onChanged();
    this.#take(answer.value);
  };

  async #untilSummed(): Promise<void> {
    if (!this.reach.door().waiting) return;
    this.reach.door().onAwaited?.();
    // Until what came in is shown: the door is then the new one.
    for (let looks = 0; this.reach.door().waiting && looks < SUM_LOOKS; looks++)
      await new Promise((resolve) => setTimeout(resolve, SUM_LOOK_MS));
  }

  /** Pays what is asked now, with the card that stands in the fields. A press while one is under way is none. */
  readonly pay = async (): Promise<void> => {
    await this.#finding;
    if (this.view().stage !== 'ready') return;
    this.show({ stage: 'sending' });
    await this.#untilSummed();
    const { path, body, before, free, hindrance, onHindered, onChanged } = this.reach.door();
    this.#hindrance = hindrance;
    if (hindrance) {
      onHindered?.();
      return this.show({ stage: 'ready', trouble: hindrance });
    }
    this.show({ trouble: null });
    const card = free ? { token: '' } : await this.reach.tokenise();
    if (!('token' in card)) return this.show({ stage: 'ready', trouble: card.trouble });
    const worked = before ? await before() : {};
    if (!worked) return this.show({ stage: 'ready', trouble: this.reach.words.processorAway });
    this.#attempt ||= this.reach.newKey();
    this.reach.door().onAttempt?.(this.#attempt);
    const answer = await this.reach.post(path, {
      ...body,
      ...worked,
      attemptKey: this.#attempt,
      cardToken: card.token,
    });
    if (answer.ok) {
      this.#take(answer.value);
      if (answer.value.state === 'approval') this.reach.toBank(answer.value);
      return;
    }
    // The answer was lost, not the attempt: it is asked about under its key.
    if (answer.code === 'unreachable' || answer.code === 'trouble') return this.show({ stage: 'checking' });
    onChanged(answer);
    this.#attempt = '';
    this.show({ stage: 'ready', trouble: this.reach.words.trouble(answer) });
  };

  /** It is paid, and more can be: the fields are there again. */
  readonly again = (): void => {
    this.#attempt = '';
    this.show({ stage: 'ready', trouble: null });
  };

  /** Takes the open attempt back, so that another card can be used. */
  readonly otherCard = async (): Promise<void> => {
    this.show({ stage: 'sending' });
    const { path, withdraw } = this.reach.door();
    const answer = await this.reach.post(`${path}/withdraw`, withdraw(this.#attempt));
    if (!answer.ok) return this.show({ stage: 'approval', trouble: this.reach.words.trouble(answer) });
    if (answer.value.state === 'refused') {
      this.#attempt = '';
      this.reach.door().onAttempt?.('');
      return this.show({ stage: 'ready', trouble: null });
    }
    this.#take(answer.value);
  };
}
