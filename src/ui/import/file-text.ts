import { decoded } from '@/core/file/decoded';

/** The text of a file that somebody chose, in whatever character set it is written. */
export const fileText = async (file: File): Promise<string> =>
  decoded(new Uint8Array(await file.arrayBuffer())).text.replace(/^\uFEFF/, '');
