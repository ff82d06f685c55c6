/** Passkeys (WebAuthn): what is asked of a browser, and whether its answer holds. */
import { randomBytes } from 'node:crypto';
import {
  type AuthenticationResponseJSON,
  generateAuthenticationOptions,
  generateRegistrationOptions,
  type PublicKeyCredentialCreationOptionsJSON,
  type PublicKeyCredentialRequestOptionsJSON,
  type RegistrationResponseJSON,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
} from '@simplewebauthn/server';
import { countAttempt, type Limit } from '@/db/limits';
import type { Connection } from '@/db/pool';
import { noteUsedPasskey, type Passkey, type PasskeyHolder, passkeyHolder } from '@/db/sign-in-steps';
import { sealed, unsealed } from '@/flows/door/signing';
import { services } from '@/outside/services';

export type { AuthenticationResponseJSON, RegistrationResponseJSON };

const MINUTES = 5;
const USED: Limit = { name: 'challenge-used', attempts: 1, seconds: MINUTES * 60 };
/** 256 bits. */
const CHALLENGE_BYTES = 32;

const site = (): { origin: string; id: string } => {
  const { origin, hostname } = new URL(services().publicUrl);
  return { origin, id: hostname };
};

/** A question to an authenticator: for what, and until when. It goes to the browser, and comes back with the answer. */
type ChallengeSeal = { readonly c: string; readonly till: string; readonly until: number };

function newChallenge(till: string, now: Date): { bytes: Uint8Array<ArrayBuffer>; seal: string } {
  const bytes = new Uint8Array(randomBytes(CHALLENGE_BYTES));
  const c = Buffer.from(bytes).toString('base64url');
  const until = now.getTime() + MINUTES * 60_000;
  return { bytes, seal: sealed('challenge', { c, till, until } satisfies ChallengeSeal) };
}

/** The question that was asked, once; null where it was another, is answered already, or is too old. */
async function takeChallenge(seal: string, till: string, now: Date): Promise<string | null> {
  const asked = unsealed<ChallengeSeal>('challenge', seal);
  if (!asked || asked.till !== till || asked.until <= now.getTime()) return null;
  return (await countAttempt(USED, asked.c)) === 0 ? asked.c : null;
}

/** What a browser is asked, and the seal that it hands back with its answer. */
export type PasskeyAsked = { readonly options: PublicKeyCredentialRequestOptionsJSON; readonly seal: string };
export type PasskeyAnswer = { readonly seal: string; readonly response: AuthenticationResponseJSON };

/**
 * Asks for a passkey. Whoever has it has to show themselves to their authenticator too, so that it is two things at once.
 *
 * @param till what for: an answer is good for nothing else
 * @param allowed those of one person; none for whichever the browser has
 */
export async function askForPasskey(till: string, allowed: readonly Passkey[], now: Date): Promise<PasskeyAsked> {
  const { bytes, seal } = newChallenge(till, now);
  const options = await generateAuthenticationOptions({
    rpID: site().id,
    challenge: bytes,
    userVerification: 'required',
    allowCredentials: allowed.map(({ id, transports }) => ({ id, transports: [...transports] })),
  });
  return { options, seal };
}

async function holds(holder: PasskeyHolder, response: AuthenticationResponseJSON, challenge: string) {
  const { origin, id } = site();
  try {
    const { userHandle } = response.response;
    if (userHandle && userHandle !== holder.handle.toString('base64url')) return null;
    const { verified, authenticationInfo } = await verifyAuthenticationResponse({
      response,
      expectedChallenge: challenge,
      expectedOrigin: origin,
      expectedRPID: id,
      requireUserVerification: true,
      credential: {
        id: response.id,
        publicKey: new Uint8Array(holder.publicKey),
        counter: Number(holder.counter),
        transports: [...holder.transports],
      },
    });
    return verified ? authenticationInfo : null;
  } catch {
    // What the library throws at: an answer that is not well-formed, not signed, or of a copied authenticator.
    return null;
  }
}

/** Whose passkey has answered; null where the answer does not hold. @param till what it was asked for */
export async function takePasskey(
  db: Connection,
  { seal, response }: PasskeyAnswer,
  till: string,
  now: Date,
): Promise<string | null> {
  const challenge = await takeChallenge(seal, till, now);
  const holder = challenge && typeof response.id === 'string' ? await passkeyHolder(db, response.id) : null;
  if (!challenge || !holder) return null;
  const info = await holds(holder, response, challenge);
  if (!info) return null;
  return (await noteUsedPasskey(db, response.id, BigInt(info.newCounter), now)) ? holder.address : null;
}

/** What a browser is asked for a new passkey, and its seal. */
export type PasskeyMade = { readonly options: PublicKeyCredentialCreationOptionsJSON; readonly seal: string };

/** Asks a browser to make a passkey. @param handle what authenticators know the person by @param till what for */
export async function askToMake(
  person: { readonly name: string; readonly email: string; readonly handle: Buffer },
  there: readonly Passkey[],
  till: string,
  now: Date,
): Promise<PasskeyMade> {
  const { bytes, seal } = newChallenge(till, now);
  const options = await generateRegistrationOptions({
    rpName: 'Dahlia',
    rpID: site().id,
    challenge: bytes,
    userName: person.email,
    userDisplayName: person.name,
    userID: new Uint8Array(person.handle),
    attestationType: 'none',
    excludeCredentials: there.map(({ id, transports }) => ({ id, transports: [...transports] })),
    authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
  });
  return { options, seal };
}

/** A passkey as a browser made it; null where its answer does not hold. */
export async function madePasskey(
  { seal, response }: { readonly seal: string; readonly response: RegistrationResponseJSON },
  till: string,
  now: Date,
): Promise<Pick<Passkey, 'id' | 'publicKey' | 'counter' | 'transports'> | null> {
  const challenge = await takeChallenge(seal, till, now);
  if (!challenge) return null;
  const { origin, id } = site();
  try {
    const { verified, registrationInfo } = await verifyRegistrationResponse({
      response,
      expectedChallenge: challenge,
      expectedOrigin: origin,
      expectedRPID: id,
      requireUserVerification: true,
    });
    if (!verified) return null;
    const { credential } = registrationInfo;
    return {
      id: credential.id,
      publicKey: Buffer.from(credential.publicKey),
      counter: BigInt(credential.counter),
      transports: credential.transports ?? [],
    };
  } catch {
    return null;
  }
}
