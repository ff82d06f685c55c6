/** A share account as the bank knows it. */
export type ShareAccount = { readonly number: string; readonly holder: string; readonly open: boolean };

/** The bank that holds share accounts. */
export interface Bank {
  /** The account with this number, `unknown` where there is none; null where no answer came. */
  accountOf(number: string): Promise<ShareAccount | 'unknown' | null>;
}

const TIMEOUT_MS = 5000;

export const httpBank = (url: string, apiKey: string): Bank => ({
  accountOf: async (number) => {
    try {
      const answer = await fetch(`${url}/api/accounts/${encodeURIComponent(number)}`, {
        headers: { authorization: `Bearer ${apiKey}` },
        signal: AbortSignal.timeout(TIMEOUT_MS),
      });
      if (answer.status === 404) return 'unknown';
      return answer.ok ? ((await answer.json()) as ShareAccount) : null;
    } catch {
      return null;
    }
  },
});
