import { call } from './http';

/** A short message to a phone. `key` stays the same when it is handed over again. */
export type ShortMessage = {
  readonly key: string;
  readonly way: 'text' | 'chat';
  readonly to: string;
  readonly text: string;
};

/** The messages service said no for good: trying again would not help. */
export class MessageRefused extends Error {
  override readonly name = 'MessageRefused';
}

/** Hands short messages over; the same key twice is one message. */
export interface Messenger {
  /** @throws MessageRefused for good; any other Error for now */
  handOver(message: ShortMessage): Promise<void>;
}

const TIMEOUT_MS = 8000;

export const httpMessenger = (url: string, apiKey: string): Messenger => ({
  handOver: async ({ key, ...message }) => {
    const { status, json } = await call(`${url}/outgoing`, {
      method: 'POST',
      headers: { authorization: `Bearer ${apiKey}`, 'idempotency-key': key },
      body: message,
      timeoutMs: TIMEOUT_MS,
    });
    if (status >= 200 && status < 300) return;
    const { words } = (json ?? {}) as { words?: string };
    if (status === 422) throw new MessageRefused(words ?? 'refused');
    throw new Error(`The messages service answered ${status}`);
  },
});
