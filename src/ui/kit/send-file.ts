import { FILE_TOO_LARGE, MOST_FILE_BYTES } from '@/core/file/size';
import type { PaperFile } from '@/core/paper/paper';
import { type Answer, LOST_AFTER_MS } from './send';

const no = (code: string, words: string): Answer<never> => ({ ok: false, code, words, fields: [] });

/** Sends a file as the body, to be told by its content; one that is too large is not sent at all. Never throws. */
export async function sendFile<T>(path: string, file: Blob): Promise<Answer<T>> {
  if (file.size > MOST_FILE_BYTES) return no('file-too-large', FILE_TOO_LARGE);
  try {
    const headers = { 'content-type': 'application/octet-stream' };
    const signal = AbortSignal.timeout(LOST_AFTER_MS);
    return (await (await fetch(path, { method: 'POST', headers, body: file, signal })).json()) as Answer<T>;
  } catch {
    return no('unreachable', 'No connection. Nothing was saved; try again in a moment.');
  }
}

/** What a file of the business's own is for. */
type Purpose = 'attachment' | 'logo' | 'picture' | 'document' | 'seal' | 'authorisation' | 'digital';

/** Sends up a file of the business's own. */
export const upload = (file: Blob, purpose: Purpose, name: string): Promise<Answer<PaperFile>> =>
  sendFile(`/api/files?purpose=${purpose}&name=${encodeURIComponent(name)}`, file);
