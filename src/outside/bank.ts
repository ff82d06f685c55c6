import { call } from './http';

/** A share account as the bank knows it. */
export type ShareAccount = { readonly number: string; readonly holder: string; readonly open: boolean };

/** The bank that holds share accounts. */
export interface Bank {
  /** The account with this number, `unknown` where there is none; null where no answer came. */
  accountOf(number: string): Promise<ShareAccount | 'unknown' | null>;
}

const TIMEOUT_MS = 5000;

const isAccount = (json: unknown): json is ShareAccount =>
  typeof json === 'object' &&
  json !== null &&
  'number' in json &&
  typeof json.number === 'string' &&
  'holder' in json &&
  typeof json.holder === 'string' &&
  'open' in json &&
  typeof json.open === 'boolean';

export const httpBank = (url: string, apiKey: string): Bank => ({
  accountOf: async (number) => {
    try {
      const { status, json } = await call(`${url}/api/accounts/${encodeURIComponent(number)}`, {
        headers: { authorization: `Bearer ${apiKey}` },
        timeoutMs: TIMEOUT_MS,
      });
      if (status === 404) return 'unknown';
      return status === 200 && isAccount(json) ? json : null;
    } catch {
      return null;
    }
  },
});
