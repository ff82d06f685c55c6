import { hash } from '@node-rs/argon2';
import { passwordProblem } from '@/core/person/password';
import { Refusal } from '@/flows/door/refusal';
import { commonPasswords } from '@/outside/common-passwords';

/** argon2id with the library's recommended cost. */
export const passwordHash = (password: string): Promise<string> => hash(password);

/**
 * @param own what everybody knows of its person
 * @throws Refusal `password-weak` with the reason at its field
 */
export async function requireGoodPassword(field: string, password: string, own: readonly string[]): Promise<void> {
  const words = passwordProblem(password, await commonPasswords(), own);
  if (words) throw new Refusal('password-weak', [{ field, words }]);
}
