/** Reading what a request carries, never more than its address needs and never longer than is fair. */
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream as NodeStream } from 'node:stream/web';
import { Refusal } from '@/flows/door/refusal';

/** How long all of a body may take to come, in milliseconds: 10 MB on a slow line from a phone. */
const SLOWEST_MS = 120_000;

/**
 * A request's body piece by piece.
 *
 * @throws Refusal `too-much` once more than `most` bytes came (or are announced), `too-slow` where it takes too long
 */
async function* pieces(request: Request, most: number): AsyncGenerator<Uint8Array> {
  if (Number(request.headers.get('content-length') ?? 0) > most) throw new Refusal('too-much');
  if (!request.body) return;
  const stream = Readable.fromWeb(request.body as NodeStream, { signal: AbortSignal.timeout(SLOWEST_MS) });
  let taken = 0;
  try {
    for await (const piece of stream as AsyncIterable<Uint8Array>) {
      taken += piece.byteLength;
      if (taken > most) throw new Refusal('too-much');
      yield piece;
    }
  } catch (error) {
    throw error instanceof Error && error.name === 'AbortError' ? new Refusal('too-slow') : error;
  }
}

/** The body as text, UTF-8. @param most in bytes @throws Refusal `too-much`, `too-slow` */
export async function bodyText(request: Request, most: number): Promise<string> {
  const all: Uint8Array[] = [];
  for await (const piece of pieces(request, most)) all.push(piece);
  return Buffer.concat(all).toString('utf8');
}

/**
 * The body as a file: kept on disk while it comes, so that many slow ones hold no memory.
 *
 * @param most in bytes
 * @throws Refusal `file-too-large`, `too-slow`
 */
export async function bodyFile(request: Request, most: number): Promise<Buffer> {
  const folder = await mkdtemp(join(tmpdir(), 'dahlia-upload-'));
  const path = join(folder, 'file');
  try {
    await pipeline(pieces(request, most), createWriteStream(path));
    const all: Buffer[] = [];
    for await (const piece of createReadStream(path)) all.push(piece as Buffer);
    return Buffer.concat(all);
  } catch (error) {
    throw error instanceof Refusal && error.code === 'too-much' ? new Refusal('file-too-large') : error;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
