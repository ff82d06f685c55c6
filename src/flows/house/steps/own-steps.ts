/** What somebody has for their second step, and how a code of it is taken. */
import { randomBytes } from 'node:crypto';
import { RECOVERY_BYTES, RECOVERY_CODES, readRecoveryCode, recoveryCode } from '@/core/person/recovery-code';
import { NO_STEPS, type OwnSteps } from '@/core/person/steps';
import type { Connection } from '@/db/pool';
import {
  beginSteps,
  type StoredSteps,
  setRecoveryCodes,
  storedSteps,
  takeRecoveryCode,
  takeTimeStep,
} from '@/db/sign-in-steps';
import { signatureOf } from '@/flows/door/signing';
import { realClock } from '@/outside/clock';
import { decrypted } from '@/outside/sealing';
import { stepOfCode } from './time-code';

const shown = (stored: StoredSteps | null): OwnSteps =>
  stored
    ? {
        hasApp: stored.timeKey !== null,
        passkeys: stored.passkeys,
        codesLeft: stored.codesLeft,
        lostAt: stored.lostAt,
      }
    : NO_STEPS;

/** What whoever an address is has. */
export const ownSteps = async (db: Connection, address: string): Promise<OwnSteps> =>
  shown(await storedSteps(db, address));

const HANDLE_BYTES = 32;

/** Makes somebody known to authenticators, where they are not yet. Null for an address that is nobody's. */
export async function knownSteps(db: Connection, address: string): Promise<StoredSteps | null> {
  await beginSteps(db, address, randomBytes(HANDLE_BYTES));
  return storedSteps(db, address);
}

/** Takes a code of the authenticator app, once. */
export async function takeAppCode(db: Connection, address: string, typed: string): Promise<boolean> {
  const stored = await storedSteps(db, address);
  if (!stored?.timeKey) return false;
  const key = decrypted('time-key', stored.handle.toString('hex'), stored.timeKey);
  const step = stepOfCode(key, typed, await realClock.now());
  return step !== null && takeTimeStep(db, address, step);
}

const hashed = (handle: Buffer, code: string): Buffer =>
  Buffer.from(signatureOf('recovery', `${handle.toString('hex')} ${code}`), 'base64url');

/** Takes a recovery code, once. */
export async function takeRecovery(db: Connection, address: string, typed: string, now: Date): Promise<boolean> {
  const code = readRecoveryCode(typed);
  const stored = code ? await storedSteps(db, address) : null;
  return code !== null && stored !== null && takeRecoveryCode(db, address, hashed(stored.handle, code), now);
}

/** Ten new recovery codes, told this once; those before are good no longer. */
export async function freshRecoveryCodes(db: Connection, address: string, handle: Buffer): Promise<string[]> {
  const codes = Array.from({ length: RECOVERY_CODES }, () => recoveryCode(randomBytes(RECOVERY_BYTES)));
  await setRecoveryCodes(
    db,
    address,
    codes.map((code) => hashed(handle, code)),
  );
  return codes;
}
