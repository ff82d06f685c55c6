import { createHmac } from 'node:crypto';
import type { Processor, Sale } from './processor';

/** Where events go and how they are signed; `delayMs` after the outcome is known. */
export type WebhookTarget = { readonly url: string; readonly secret: string; readonly delayMs: number };

/** The signature over `TIME.BODY`, HMAC-SHA256 in hexadecimal. */
export const eventSignature = (secret: string, time: string, body: string): string =>
  createHmac('sha256', secret).update(`${time}.${body}`).digest('hex');

/** Tells the other side that a sale has changed, again and again until it confirms; picks up after a restart. */
export class Webhooks {
  private readonly timers = new Set<NodeJS.Timeout>();
  private stopped = false;

  constructor(private readonly target: WebhookTarget) {}

  /** Sends what an earlier run could not. */
  resume(processor: Processor): void {
    for (const sale of processor.untold()) this.tell(processor, sale);
  }

  tell(processor: Processor, sale: Sale): void {
    if (sale.status === 'approval' || sale.status === 'collecting') return;
    this.later(Math.max(0, sale.knownAt - Date.now()) + this.target.delayMs, () => this.send(processor, sale, 1));
  }

  stop(): void {
    this.stopped = true;
    for (const timer of this.timers) clearTimeout(timer);
  }

  private later(milliseconds: number, work: () => Promise<void>): void {
    if (this.stopped) return;
    const timer = setTimeout(() => {
      this.timers.delete(timer);
      void work();
    }, milliseconds);
    this.timers.add(timer);
  }

  private async send(processor: Processor, sale: Sale, attempt: number): Promise<void> {
    const event = sale.dispute ? 'dispute-changed' : sale.returned ? 'debit-returned' : 'sale-changed';
    const body = JSON.stringify({ event, key: sale.key, sale: sale.id });
    const time = String(Math.floor(Date.now() / 1000));
    try {
      const answer = await fetch(this.target.url, {
        method: 'POST',
        headers: {
          'content-type': 'application/json',
          'x-event-time': time,
          'x-event-signature': eventSignature(this.target.secret, time, body),
        },
        body,
        signal: AbortSignal.timeout(10_000),
      });
      if (answer.ok) return processor.markTold(sale);
    } catch {
      // Nobody answers: tried again below, as for a refusal.
    }
    this.later(Math.min(60_000, 500 * 2 ** attempt), () => this.send(processor, sale, attempt + 1));
  }
}
