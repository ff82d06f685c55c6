/** What a file is, by its content and never by its name. */
import { fileTypeFromBuffer } from 'file-type';
import { fromBuffer } from 'yauzl';

/** The kinds that are taken, with the ending that their names get. */
const KINDS: Readonly<Record<string, string>> = {
  'application/pdf': 'pdf',
  'image/png': 'png',
  'image/jpeg': 'jpg',
  'image/gif': 'gif',
  'image/webp': 'webp',
  'image/tiff': 'tiff',
  'application/vnd.openxmlformats-officedocument.wordprocessingml.document': 'docx',
  'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet': 'xlsx',
  'text/csv': 'csv',
};

/** What can be sold beside these: recordings, books, and more than one file in one. */
const SOLD: Readonly<Record<string, string>> = {
  'audio/mpeg': 'mp3',
  'audio/x-m4a': 'm4a',
  'audio/ogg': 'ogg',
  'audio/flac': 'flac',
  'audio/wav': 'wav',
  'video/mp4': 'mp4',
  'application/epub+zip': 'epub',
  'application/zip': 'zip',
};

export type FileKind = { readonly type: string; readonly ending: string };

const MOST_UNPACKED = 250_000_000;
const MOST_ENTRIES = 5000;
const MOST_RATIO = 200;

/** Whether an Office file holds what its directory promises and would not swell when unpacked; nothing is unpacked to tell. */
function isSoundArchive(bytes: Buffer): Promise<boolean> {
  return new Promise((resolve) => {
    fromBuffer(bytes, { lazyEntries: true, validateEntrySizes: true }, (error, zip) => {
      if (error || !zip) return resolve(false);
      let unpacked = 0;
      let sound = zip.entryCount <= MOST_ENTRIES;
      zip.on('entry', (entry) => {
        unpacked += entry.uncompressedSize;
        const ratio = entry.uncompressedSize / Math.max(entry.compressedSize, 1);
        if (unpacked > MOST_UNPACKED || (entry.uncompressedSize > 1_000_000 && ratio > MOST_RATIO)) sound = false;
        if (sound) zip.readEntry();
        else resolve(false);
      });
      zip.on('end', () => resolve(sound));
      zip.on('error', () => resolve(false));
      zip.readEntry();
    });
  });
}

/** Text that a person could have saved as a table: readable, without control signs, with something that parts its columns. */
function isTable(bytes: Buffer): boolean {
  try {
    const text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    // biome-ignore lint/suspicious/noControlCharactersInRegex: these are what tells text from other bytes
    return !/[\u0000-\u0008\u000e-\u001f]/.test(text) && /[,;\t]/.test(text.slice(0, 10_000)) && !/^\s*</.test(text);
  } catch {
    return false;
  }
}

/** The kind of a file, or null where it is none that is taken (or a broken or swelling one). @param sold whether it may be what is sold as a file */
export async function fileKind(bytes: Buffer, sold = false): Promise<FileKind | null> {
  const found = await fileTypeFromBuffer(bytes);
  if (!found) return isTable(bytes) ? { type: 'text/csv', ending: 'csv' } : null;
  const ending = KINDS[found.mime] ?? (sold ? SOLD[found.mime] : undefined);
  if (!ending) return null;
  if (['docx', 'xlsx', 'epub', 'zip'].includes(ending) && !(await isSoundArchive(bytes))) return null;
  return { type: found.mime, ending };
}
