import type { PaperFile } from '@/core/paper/paper';
import type { Answer } from '../kit/send';
import { sendFile } from '../kit/send-file';

/** Sends a file up; what it is, is told by its content. */
export const upload = (
  file: File,
  purpose: 'attachment' | 'logo' | 'picture' | 'document' | 'seal',
): Promise<Answer<PaperFile>> => sendFile(`/api/files?purpose=${purpose}&name=${encodeURIComponent(file.name)}`, file);
