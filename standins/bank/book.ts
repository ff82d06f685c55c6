import { createHash } from 'node:crypto';
import type { Journal } from '../journal';
import type { Accounts } from './accounts';

/** Somebody asks the bank to bring money to an account; minor units. The same key again is the same transfer. */
export type TransferRequest = {
  readonly key: string;
  readonly to: string;
  readonly minor: number;
  readonly currency: string;
  readonly words: string;
  readonly reference: string;
  readonly from: string;
};

/** A line of an account's book; money in is positive, `day` by the bank's clock. */
export type BookLine = {
  readonly id: string;
  readonly account: string;
  readonly day: string;
  readonly minor: number;
  readonly currency: string;
  readonly words: string;
  readonly reference: string;
  readonly endToEnd: string;
  readonly other: string;
  readonly otherAccount: string;
};

/** What became of a transfer: `AC04` a closed account, `AC01` none at all (ISO 20022 external return reasons). */
export type TransferState =
  | { readonly status: 'waiting'; readonly booksOn: string }
  | { readonly status: 'booked'; readonly on: string }
  | { readonly status: 'returned'; readonly on: string; readonly reason: 'AC01' | 'AC04' };

/** A line of the journal. */
export type BookEvent =
  | { readonly kind: 'asked'; readonly request: TransferRequest; readonly booksOn: string }
  | { readonly kind: 'settled'; readonly key: string; readonly state: TransferState }
  | { readonly kind: 'line'; readonly line: BookLine };

const DAY_MS = 86_400_000;
const dayOf = (instant: number): string => new Date(instant).toISOString().slice(0, 10);

/** The next day after an instant on which banks work. */
function nextBankingDay(instant: number): string {
  let at = instant + DAY_MS;
  while ([0, 6].includes(new Date(at).getUTCDay())) at += DAY_MS;
  return dayOf(at);
}

/** The bank's book: what came to and went from each account, and the transfers that are on their way. */
export class Book {
  private readonly transfers = new Map<string, { request: TransferRequest; booksOn: string; state?: TransferState }>();
  private readonly lines: BookLine[] = [];

  constructor(
    private readonly journal: Journal<BookEvent>,
    private readonly accounts: Accounts,
    private readonly now: () => number,
  ) {
    for (const event of journal.past) this.apply(event);
  }

  /** Takes a transfer on: it is booked on the next banking day. False for a key that came with another sum or account. */
  ask(request: TransferRequest): boolean {
    const known = this.transfers.get(request.key);
    if (known) return known.request.minor === request.minor && known.request.to === request.to;
    this.note({ kind: 'asked', request, booksOn: nextBankingDay(this.now()) });
    return true;
  }

  /** What became of a transfer by now. */
  stateOf(key: string): TransferState | undefined {
    const transfer = this.transfers.get(key);
    if (!transfer) return undefined;
    this.settle();
    return transfer.state ?? { status: 'waiting', booksOn: transfer.booksOn };
  }

  /** Money comes to an account, or goes from it, over the counter or from elsewhere: it is booked at once. */
  move(line: Omit<BookLine, 'id' | 'day'>): void {
    const id = `B${createHash('sha256').update(`${this.lines.length} ${line.account}`).digest('hex').slice(0, 14)}`;
    this.note({ kind: 'line', line: { ...line, id, day: dayOf(this.now()) } });
  }

  /** All lines of an account by now, oldest first. */
  linesOf(account: string): BookLine[] {
    this.settle();
    return this.lines
      .filter((line) => line.account === account)
      .sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0));
  }

  /** Days of an account in a currency that are over and on which something moved. */
  daysOf(account: string, currency: string): string[] {
    const today = dayOf(this.now());
    const days = this.linesOf(account).flatMap((line) => (line.currency === currency ? line.day : []));
    return [...new Set(days)].filter((day) => day < today);
  }

  private settle(): void {
    const today = dayOf(this.now());
    for (const [key, { request, booksOn, state }] of this.transfers) {
      if (state || booksOn > today) continue;
      const account = this.accounts.find(request.to);
      if (!account?.open) {
        const reason = account ? 'AC04' : 'AC01';
        this.note({ kind: 'settled', key, state: { status: 'returned', on: booksOn, reason } });
        continue;
      }
      const id = `T${createHash('sha256').update(key).digest('hex').slice(0, 14)}`;
      const { minor, currency, words, reference, from } = request;
      const endToEnd = key.replace(/[^A-Za-z0-9]/g, '').slice(-35);
      const line = { id, account: account.number, day: booksOn, minor, currency, words, reference, endToEnd };
      // The line first: killed between the two, the transfer is settled again, and a line that is there is not written twice.
      if (!this.lines.some((one) => one.id === id))
        this.note({ kind: 'line', line: { ...line, other: from, otherAccount: '' } });
      this.note({ kind: 'settled', key, state: { status: 'booked', on: booksOn } });
    }
  }

  private note(event: BookEvent): void {
    this.journal.append(event);
    this.apply(event);
  }

  private apply(event: BookEvent): void {
    if (event.kind === 'line') this.lines.push(event.line);
    else if (event.kind === 'asked')
      this.transfers.set(event.request.key, { request: event.request, booksOn: event.booksOn });
    else {
      const transfer = this.transfers.get(event.key);
      if (transfer) transfer.state = event.state;
    }
  }
}
