/** What must not be read in the database or its backups: encrypted with a key that stands in a setting. */
import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto';
import { services } from './services';

const VERSION = 1;
const NONCE_BYTES = 12;
const TAG_BYTES = 16;

/** What is encrypted: each purpose has a key of its own. */
export type Kept = 'time-key' | 'identity-picture' | 'hook-secret';

const keyOf = (purpose: Kept): Buffer =>
  Buffer.from(hkdfSync('sha256', services().sealingSecret, '', `dahlia ${purpose}`, 32));

/**
 * Encrypts by AES-256-GCM (NIST SP 800-38D) under a fresh nonce: version, nonce, tag, text.
 *
 * @param bound whose it is; it opens for nobody else
 */
export function encrypted(purpose: Kept, bound: string, plain: Uint8Array): Buffer {
  const nonce = randomBytes(NONCE_BYTES);
  const cipher = createCipheriv('aes-256-gcm', keyOf(purpose), nonce, { authTagLength: TAG_BYTES });
  cipher.setAAD(Buffer.from(bound));
  const text = Buffer.concat([cipher.update(plain), cipher.final()]);
  return Buffer.concat([Buffer.from([VERSION]), nonce, cipher.getAuthTag(), text]);
}

/** What was encrypted. @throws Error where it was altered, is bound to somebody else, or was made with another secret */
export function decrypted(purpose: Kept, bound: string, sealed: Uint8Array): Buffer {
  const bytes = Buffer.from(sealed);
  if (bytes[0] !== VERSION) throw new Error('Not encrypted by this program');
  const nonce = bytes.subarray(1, 1 + NONCE_BYTES);
  const tag = bytes.subarray(1 + NONCE_BYTES, 1 + NONCE_BYTES + TAG_BYTES);
  const decipher = createDecipheriv('aes-256-gcm', keyOf(purpose), nonce, { authTagLength: TAG_BYTES });
  decipher.setAAD(Buffer.from(bound));
  decipher.setAuthTag(tag);
  return Buffer.concat([decipher.update(bytes.subarray(1 + NONCE_BYTES + TAG_BYTES)), decipher.final()]);
}
