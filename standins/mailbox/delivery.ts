import { eventSignature } from '../cards/webhooks';

/** Where delivery reports go and how they are signed; `delayMs` after the message was taken. */
export type ReportTarget = { readonly url: string; readonly secret: string; readonly delayMs: number };

/** What the mail server says about a message some time after it took it. */
export type DeliveryReport = {
  readonly messageId: string;
  readonly to: string;
  readonly event: 'delivered' | 'bounced';
  readonly reason: string;
};

const MOST_TRIES = 6;

/** Tells the sender what became of each message; mail to `bounced@…` comes back. A report that nobody takes is tried a few times. */
export class DeliveryReports {
  private readonly timers = new Set<NodeJS.Timeout>();

  constructor(private readonly target: ReportTarget) {}

  tell(messageId: string, recipients: readonly string[]): void {
    if (!this.target.url) return;
    for (const to of recipients) {
      const bounced = to.startsWith('bounced@');
      const reason = bounced ? 'The mailbox is full' : '';
      this.later({ messageId, to, event: bounced ? 'bounced' : 'delivered', reason }, 1, this.target.delayMs);
    }
  }

  stop(): void {
    for (const timer of this.timers) clearTimeout(timer);
  }

  private later(report: DeliveryReport, attempt: number, delayMs: number): void {
    const timer = setTimeout(() => {
      this.timers.delete(timer);
      void this.send(report, attempt);
    }, delayMs);
    this.timers.add(timer);
  }

  private async send(report: DeliveryReport, attempt: number): Promise<void> {
    const body = JSON.stringify(report);
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
      if (answer.ok) return;
    } catch {
      // Nobody answers: tried again below, as for a refusal.
    }
    if (attempt < MOST_TRIES) this.later(report, attempt + 1, 500 * 2 ** attempt);
  }
}
