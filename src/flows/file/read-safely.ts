import { NotReadable, readApart, WrongFile } from '@/documents/apart/read-apart';
import type { READERS } from '@/documents/apart/readers';
import { Refusal } from '@/flows/door/refusal';

/**
 * What stands in a file that somebody brings, read in a thread of its own.
 *
 * @throws Refusal `not-well-formed` with what is wrong, `file-too-heavy`
 */
export async function readSafely<Name extends keyof typeof READERS>(
  reader: Name,
  ...args: Parameters<(typeof READERS)[Name]>
): Promise<Awaited<ReturnType<(typeof READERS)[Name]>>> {
  try {
    return await readApart(reader, args);
  } catch (error) {
    if (error instanceof WrongFile) throw new Refusal('not-well-formed', [{ field: 'file', words: error.message }]);
    if (error instanceof NotReadable) throw new Refusal('file-too-heavy');
    throw error;
  }
}
