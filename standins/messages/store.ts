import { Journal } from '../journal';

/** A short message as it lies on somebody's phone. */
export type HeldMessage = {
  readonly key: string;
  readonly way: 'text' | 'chat';
  readonly to: string;
  readonly text: string;
  readonly at: string;
};

/** Messages on the disk, kept before the sender is told that they were taken; a key that came before is answered, not kept. */
export class MessageStore {
  private readonly messages = new Map<string, HeldMessage>();

  constructor(
    private readonly journal: Journal<HeldMessage>,
    private readonly now: () => number,
  ) {
    for (const message of journal.past) this.messages.set(message.key, message);
  }

  take(message: Omit<HeldMessage, 'at'>): HeldMessage {
    const before = this.messages.get(message.key);
    if (before) return before;
    const held = { ...message, at: new Date(this.now()).toISOString() };
    this.journal.append(held);
    this.messages.set(held.key, held);
    return held;
  }

  /** Latest first; of one number only, if given. */
  list(to?: string): HeldMessage[] {
    return [...this.messages.values()].filter((message) => !to || message.to === to).reverse();
  }
}
