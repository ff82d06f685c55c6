import type { CalendarDate } from '@/core/dates/calendar-date';
import { isCalendarDate } from '@/core/dates/calendar-date';
import { jsonMinor, type Money } from '@/core/money/money';
import { call } from './http';

/** An account as the bank knows it. */
export type KnownAccount = { readonly number: string; readonly holder: string; readonly open: boolean };

/** Money that is brought to an account. `key` makes it one transfer however often it is asked. */
export type TransferRequest = {
  readonly key: string;
  readonly to: string;
  readonly amount: Money;
  /** Read by whoever gets it. */
  readonly words: string;
  /** ISO 11649, or empty. */
  readonly reference: string;
  readonly from: string;
};

/** What became of a transfer; a reason is an ISO 20022 external return reason code. */
export type TransferState =
  | { readonly kind: 'waiting' }
  | { readonly kind: 'booked'; readonly on: CalendarDate }
  | { readonly kind: 'returned'; readonly on: CalendarDate; readonly reason: string };

/** A day's statement of an account, as the bank writes it (camt.053). */
export type WrittenStatement = { readonly day: CalendarDate; readonly xml: string };

/** The bank that brings payouts to accounts. No method throws for an outage: null is no answer. */
export interface Bank {
  /** The account with this number, `unknown` where there is none. */
  accountOf(number: string): Promise<KnownAccount | 'unknown' | null>;
  /** Asks for a transfer; what has become of it. The same key again asks for nothing more. */
  transfer(request: TransferRequest): Promise<TransferState | null>;
  /** What became of a key; `never-seen` where there is no transfer under it. */
  transferOf(key: string): Promise<TransferState | 'never-seen' | null>;
  /** Statements of days that are over, after a day, oldest first; none for an account that is not held there. */
  statements(number: string, currency: string, after: CalendarDate | null): Promise<WrittenStatement[] | null>;
}

const TIMEOUT_MS = 5000;

const isAccount = (json: unknown): json is KnownAccount =>
  typeof json === 'object' &&
  json !== null &&
  'number' in json &&
  typeof json.number === 'string' &&
  'holder' in json &&
  typeof json.holder === 'string' &&
  'open' in json &&
  typeof json.open === 'boolean';

function stateOf(json: unknown): TransferState | null {
  const { status, on, reason } = (json ?? {}) as { status?: unknown; on?: unknown; reason?: unknown };
  if (status === 'waiting') return { kind: 'waiting' };
  if (typeof on !== 'string' || !isCalendarDate(on)) return null;
  if (status === 'booked') return { kind: 'booked', on };
  return status === 'returned' ? { kind: 'returned', on, reason: String(reason).slice(0, 4) } : null;
}

export function httpBank(url: string, apiKey: string): Bank {
  const ask = async (path: string, body?: object): Promise<{ status: number; json: unknown } | null> => {
    try {
      const headers = { authorization: `Bearer ${apiKey}` };
      return await call(`${url}/api/${path}`, { method: body ? 'POST' : 'GET', headers, body, timeoutMs: TIMEOUT_MS });
    } catch {
      return null;
    }
  };
  const part = encodeURIComponent;
  return {
    accountOf: async (number) => {
      const answer = await ask(`accounts/${part(number)}`);
      if (answer?.status === 404) return 'unknown';
      return answer?.status === 200 && isAccount(answer.json) ? answer.json : null;
    },
    transfer: async ({ key, to, amount, words, reference, from }) => {
      const { currency } = amount;
      const answer = await ask('transfers', {
        key,
        to,
        minor: jsonMinor(amount.minor),
        currency,
        words,
        reference,
        from,
      });
      return answer?.status === 200 ? stateOf(answer.json) : null;
    },
    transferOf: async (key) => {
      const answer = await ask(`transfers/${part(key)}`);
      if (answer?.status === 404) return 'never-seen';
      return answer?.status === 200 ? stateOf(answer.json) : null;
    },
    statements: async (number, currency, after) => {
      const answer = await ask(`statements/${part(number)}/${currency}${after ? `?after=${after}` : ''}`);
      if (answer?.status === 404) return [];
      const { statements } = (answer?.json ?? {}) as { statements?: WrittenStatement[] };
      return answer?.status === 200 && Array.isArray(statements) ? statements : null;
    },
  };
}
