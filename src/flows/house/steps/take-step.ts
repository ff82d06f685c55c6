/** Taking a second step by whichever way somebody chose. */
import type { Way } from '@/core/person/steps';
import type { Connection } from '@/db/pool';
import { Refusal } from '@/flows/door/refusal';
import { takeAppCode, takeRecovery } from './own-steps';
import { type PasskeyAnswer, takePasskey } from './passkeys';

const WRONG = { app: 'code-wrong', recovery: 'recovery-wrong', password: 'password-wrong' } as const;

/** A step as it is handed in: a code of the app, a recovery code, or a passkey's answer. */
export type GivenStep =
  | { readonly way: Exclude<Way, 'passkey'>; readonly code: string }
  | ({ readonly way: 'passkey' } & PasskeyAnswer);

/** Whether a step is that of whoever an address is; it is good once. @param till what a passkey was asked for */
export async function takeStep(
  db: Connection,
  address: string,
  given: GivenStep,
  till: string,
  now: Date,
): Promise<boolean> {
  if ('seal' in given) return (await takePasskey(db, given, till, now)) === address.toLowerCase();
  return given.way === 'app' ? takeAppCode(db, address, given.code) : takeRecovery(db, address, given.code, now);
}

/** What somebody is told whose step is not right. */
export const wrongStep = ({ way }: { readonly way: Way | 'password' }): Refusal =>
  way === 'passkey' ? new Refusal('passkey-not-taken') : Refusal.at('code', WRONG[way]);
