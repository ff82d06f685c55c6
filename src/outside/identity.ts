import { type CheckReason, type CheckState, isCheckReason, type Side } from '@/core/identity/identity';
import { call } from './http';

/** Somebody who is looked at, with the pictures of them (JPEG). */
export type ShownPerson = {
  readonly name: string;
  readonly born: string;
  readonly country: string;
  readonly pictures: readonly { readonly side: Side; readonly bytes: Buffer }[];
};

/** What became of a check. */
export type CheckAnswer = { readonly state: CheckState; readonly reason: CheckReason | null };

/** The office that looks who stands behind a business. No method throws for an outage: null is no answer. */
export interface IdentityOffice {
  /** Begins a check; the same key again is the same one. */
  begin(check: {
    readonly key: string;
    readonly business: string;
    /** What it does, and where it can be seen. */
    readonly about: string;
    readonly people: readonly ShownPerson[];
  }): Promise<CheckAnswer | null>;
  /** What became of a key; `never-seen` where there is no check under it. */
  checkOf(key: string): Promise<CheckAnswer | 'never-seen' | null>;
}

const TIMEOUT_MS = 20_000;
const STATES: readonly CheckState[] = ['checking', 'asked', 'accepted', 'refused'];

function answerOf(json: unknown): CheckAnswer | null {
  const { state, reason } = (json ?? {}) as { state?: unknown; reason?: unknown };
  const known = STATES.find((one) => one === state);
  if (!known) return null;
  const said = String(reason ?? '');
  const why = known === 'asked' || known === 'refused' ? (isCheckReason(said) ? said : 'other') : null;
  return { state: known, reason: why };
}

export function httpIdentity(url: string, apiKey: string): IdentityOffice {
  const ask = async (path: string, body?: object) => {
    try {
      const headers = { authorization: `Bearer ${apiKey}` };
      return await call(`${url}/api/${path}`, { method: body ? 'POST' : 'GET', headers, body, timeoutMs: TIMEOUT_MS });
    } catch {
      return null;
    }
  };
  return {
    begin: async ({ key, business, about, people }) => {
      const sent = people.map(({ pictures, ...person }) => ({
        ...person,
        pictures: pictures.map(({ side, bytes }) => ({ side, bytes: bytes.toString('base64') })),
      }));
      const answer = await ask('checks', { key, business, about, people: sent });
      return answer?.status === 200 ? answerOf(answer.json) : null;
    },
    checkOf: async (key) => {
      const answer = await ask(`checks/${encodeURIComponent(key)}`);
      if (answer?.status === 404) return 'never-seen';
      return answer?.status === 200 ? answerOf(answer.json) : null;
    },
  };
}
