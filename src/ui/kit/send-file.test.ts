import { afterEach, expect, test, vi } from 'vitest';
import { MOST_FILE_BYTES } from '@/core/file/size';
import { refusalWords } from '@/core/refusal/refusal';
import { sendFile } from './send-file';

afterEach(() => vi.unstubAllGlobals());

test('a file that is too large is not sent, and its sender hears what to do; one that just fits is', async () => {
  const sent: string[] = [];
  vi.stubGlobal('fetch', async (path: string) => {
    sent.push(path);
    return new Response(JSON.stringify({ ok: true, value: 1 }));
  });
  const words = refusalWords('file-too-large');
  expect(await sendFile('/x', new Blob([new Uint8Array(MOST_FILE_BYTES + 1)]))).toMatchObject({ ok: false, words });
  expect(sent).toEqual([]);
  expect(await sendFile('/x', new Blob([new Uint8Array(MOST_FILE_BYTES)]))).toEqual({ ok: true, value: 1 });
});

test.each([
  ['a line that is cut', () => Promise.reject(new TypeError('fetch failed'))],
  ['an answer that is none of ours', async () => new Response('<html>')],
])('%s is an answer too', async (_, fetched) => {
  vi.stubGlobal('fetch', fetched);
  expect(await sendFile('/x', new Blob(['x']))).toMatchObject({ ok: false, code: 'unreachable' });
});
