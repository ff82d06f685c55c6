import { Readable } from 'node:stream';
import { ZipFile } from 'yazl';

/** Files as one zip, by their names in it. */
export async function zipOf(files: readonly { readonly name: string; readonly bytes: Uint8Array }[]): Promise<Buffer> {
  const zip = new ZipFile();
  for (const { name, bytes } of files) zip.addBuffer(Buffer.from(bytes), name);
  zip.end();
  const chunks: Buffer[] = [];
  for await (const chunk of zip.outputStream) chunks.push(chunk as Buffer);
  return Buffer.concat(chunks);
}

/** A file of an archive whose content is made when its turn comes, part by part. */
export type LazyFile = { readonly name: string; readonly parts: () => AsyncIterable<string | Uint8Array> };

/** A lazy file of one piece. */
export const lazyFile = (name: string, make: () => Promise<string | Uint8Array>): LazyFile => ({
  name,
  async *parts() {
    yield await make();
  },
});

/** A name as part of a path in an archive: only signs that every system takes. */
export const pathPart = (name: string): string =>
  name.replace(/[^\p{L}\p{N}._-]+/gu, '-').replace(/^\.+/, '') || 'without-name';

/**
 * The same as it is read, one file after the other: never held whole, and nothing is made that nobody reads. Whoever reads hears of a
 * file that could not be made as an error, so that nobody takes the rest for all.
 */
export async function* zipStream(files: Iterable<LazyFile>): AsyncIterable<Uint8Array> {
  const zip = new ZipFile();
  const out = zip.outputStream as Readable;
  zip.on('error', (error: unknown) => out.destroy(error instanceof Error ? error : new Error(String(error))));
  const names = new Set<string>();
  for (const { name, parts } of files) {
    // Two of one name would hide each other where they are unpacked.
    let own = name;
    for (let again = 2; names.has(own.toLowerCase()); again++) own = name.replace(/(\.[^./]*)?$/, `-${again}$1`);
    names.add(own.toLowerCase());
    zip.addReadStreamLazy(own, (give) => {
      const stream = Readable.from(parts());
      stream.on('error', (error) => zip.emit('error', error));
      give(null, stream);
    });
  }
  zip.end();
  for await (const chunk of out) yield chunk as Buffer;
}
