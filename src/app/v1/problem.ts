/** What is told where something is refused: `application/problem+json` (RFC 9457). */
import { NextResponse } from 'next/server';

export type Problem = {
  /** Our own word for it, which stays; it ends the address under which it is explained. */
  readonly code: string;
  readonly status: number;
  readonly title: string;
  readonly fields?: readonly { readonly field: string; readonly words: string }[];
};

/** Problems that only programs meet, with their status and words. */
export const PROBLEMS = {
  'no-key': [401, 'Send a key: Authorization: Bearer KEY.'],
  'key-not-good': [401, 'This key is not good: it was ended, its time is over, or it never was one.'],
  'not-there': [404, 'There is nothing at this address.'],
  'no-such-method': [405, 'What is there does not take this method.'],
  'too-many-requests': [429, 'That is more than a key may ask in a minute. Wait as long as Retry-After says.'],
  'request-key': [400, 'An Idempotency-Key has 1 to 200 letters, digits and signs.'],
  'other-request': [422, 'Another request was sent under this Idempotency-Key. Take a new key for a new request.'],
  'outcome-unknown': [
    409,
    'A request under this Idempotency-Key is still worked on, or was broken off. Look what came of it before you send it under a new key.',
  ],
  'asks-for-a-person': [403, 'This asks for a person: somebody has to do it at the desk.'],
} as const satisfies Readonly<Record<string, readonly [status: number, words: string]>>;

export const problemOf = (code: keyof typeof PROBLEMS): Problem => {
  const [status, title] = PROBLEMS[code];
  return { code, status, title };
};

export const problemAnswer = (
  { code, status, title, fields = [] }: Problem,
  headers: Readonly<Record<string, string>> = {},
): NextResponse =>
  new NextResponse(
    JSON.stringify({
      type: `/v1/problems/${code}`,
      title,
      status,
      ...(fields.length > 0 ? { errors: fields.map(({ field, words }) => ({ field, detail: words })) } : {}),
    }),
    { status, headers: { ...headers, 'content-type': 'application/problem+json' } },
  );
