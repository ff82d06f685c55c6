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
