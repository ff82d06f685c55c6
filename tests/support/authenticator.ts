/** An authenticator in software: makes passkeys and answers with them as a phone does, and as one does that was tampered with. */
import { createHash, generateKeyPairSync, type KeyObject, randomBytes, sign } from 'node:crypto';
import { isoCBOR } from '@simplewebauthn/server/helpers';
import type { AuthenticationResponseJSON, RegistrationResponseJSON } from '@/flows/house/steps/passkeys';

const sha256 = (data: Uint8Array | string): Buffer => createHash('sha256').update(data).digest();
const base64 = (data: Uint8Array): string => Buffer.from(data).toString('base64url');

/** What is otherwise than it should be. */
type Manner = {
  readonly origin?: string;
  readonly site?: string;
  /** Whether it looked who its person is. */
  readonly verified?: boolean;
  readonly counter?: number;
  readonly handle?: string;
};

const PRESENT = 1;
const VERIFIED = 4;
const HAS_KEY = 0x40;

export class Authenticator {
  readonly id = randomBytes(24);
  readonly #key: KeyObject;
  readonly #public: { x: string; y: string };
  #counter = 0;
  #handle = '';

  constructor() {
    const { privateKey, publicKey } = generateKeyPairSync('ec', { namedCurve: 'P-256' });
    this.#key = privateKey;
    this.#public = publicKey.export({ format: 'jwk' }) as { x: string; y: string };
  }

  #data({ site = 'localhost', verified = true, counter }: Manner, more: Uint8Array = Buffer.alloc(0)): Buffer {
    const count = Buffer.alloc(4);
    count.writeUInt32BE(counter ?? ++this.#counter);
    const flags = PRESENT | (verified ? VERIFIED : 0) | (more.length > 0 ? HAS_KEY : 0);
    return Buffer.concat([sha256(site), Buffer.from([flags]), count, more]);
  }

  static #client(type: string, challenge: string, { origin = 'http://localhost:1' }: Manner): Buffer {
    return Buffer.from(JSON.stringify({ type, challenge, origin, crossOrigin: false }));
  }

  /** Makes its passkey. */
  make(options: { challenge: string; user: { id: string } }, manner: Manner = {}): RegistrationResponseJSON {
    this.#handle = options.user.id;
    const length = Buffer.alloc(2);
    length.writeUInt16BE(this.id.length);
    // COSE (RFC 9053): an elliptic key for ES256.
    const key = isoCBOR.encode(
      new Map<number, number | Uint8Array>([
        [1, 2],
        [3, -7],
        [-1, 1],
        [-2, new Uint8Array(Buffer.from(this.#public.x, 'base64url'))],
        [-3, new Uint8Array(Buffer.from(this.#public.y, 'base64url'))],
      ]),
    );
    const authData = this.#data(manner, Buffer.concat([Buffer.alloc(16), length, this.id, key]));
    const attestation = isoCBOR.encode(
      new Map<string, string | Uint8Array | Map<string, string>>([
        ['fmt', 'none'],
        ['attStmt', new Map()],
        ['authData', new Uint8Array(authData)],
      ]),
    );
    return {
      id: base64(this.id),
      rawId: base64(this.id),
      type: 'public-key',
      clientExtensionResults: {},
      response: {
        clientDataJSON: base64(Authenticator.#client('webauthn.create', options.challenge, manner)),
        attestationObject: base64(attestation),
        transports: ['internal'],
      },
    };
  }

  /** Answers with its passkey. */
  answer(options: { challenge: string }, manner: Manner = {}): AuthenticationResponseJSON {
    const authData = this.#data(manner);
    const client = Authenticator.#client('webauthn.get', options.challenge, manner);
    const signature = sign('sha256', Buffer.concat([authData, sha256(client)]), this.#key);
    return {
      id: base64(this.id),
      rawId: base64(this.id),
      type: 'public-key',
      clientExtensionResults: {},
      response: {
        authenticatorData: base64(authData),
        clientDataJSON: base64(client),
        signature: base64(signature),
        userHandle: manner.handle ?? this.#handle,
      },
    };
  }
}
