import type { PaperFile } from '@/core/paper/paper';
import type { Answer } from '../kit/send';

/** Sends a file up; what it is, is told by its content. */
export async function upload(
  file: File,
  purpose: 'attachment' | 'logo' | 'picture' | 'document' | 'seal',
): Promise<Answer<PaperFile>> {
  try {
    const response = await fetch(`/api/files?purpose=${purpose}&name=${encodeURIComponent(file.name)}`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: file,
    });
    return (await response.json()) as Answer<PaperFile>;
  } catch {
    return { ok: false, code: 'unreachable', words: 'No connection. Choose the file again in a moment.', fields: [] };
  }
}
