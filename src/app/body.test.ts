import { readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { expect, test } from 'vitest';
import { bodyFile, bodyText } from './body';

/** A request whose body comes piece by piece; how many pieces were asked for. */
function sending(pieces: number, size: number): { request: Request; asked: () => number } {
  let asked = 0;
  const body = new ReadableStream<Uint8Array>({
    pull(controller) {
      if (asked === pieces) return controller.close();
      asked++;
      controller.enqueue(new Uint8Array(size).fill(120));
    },
  });
  const request = new Request('http://localhost/x', { method: 'POST', body, duplex: 'half' } as RequestInit);
  return { request, asked: () => asked };
}
const uploads = () => readdirSync(tmpdir()).filter((name) => name.startsWith('dahlia-upload-')).length;

test('a body is read up to its limit and no further', async () => {
  expect((await bodyText(sending(4, 1000).request, 4000)).length).toBe(4000);
  const endless = sending(1_000_000, 1000);
  await expect(bodyText(endless.request, 4000)).rejects.toMatchObject({ code: 'too-much' });
  expect(endless.asked()).toBeLessThan(100);
});

test('one that announces too much is not read at all', async () => {
  const request = new Request('http://localhost/x', {
    method: 'POST',
    body: 'x',
    headers: { 'content-length': '5000' },
  });
  await expect(bodyText(request, 4000)).rejects.toMatchObject({ code: 'too-much' });
});

test('a file goes over the disk, and nothing of it stays there', async () => {
  const before = uploads();
  expect((await bodyFile(sending(3, 1000).request, 3000)).length).toBe(3000);
  await expect(bodyFile(sending(30, 1000).request, 3000)).rejects.toMatchObject({ code: 'file-too-large' });
  expect(uploads()).toBe(before);
});
