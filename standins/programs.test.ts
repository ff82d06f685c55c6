import { createServer } from 'node:http';
import { expect, test } from 'vitest';
import { portFrom } from '../bin/stack/ports';
import { untilAnswers } from '../bin/stack/programs';

const listening = (host: string): Promise<{ port: number; close: () => void }> =>
  new Promise((resolve, reject) => {
    const server = createServer((_request, response) => response.end('{"ok":true,"instance":"somebody else"}'));
    server.once('error', reject);
    server.listen(0, host, () => {
      const address = server.address();
      resolve({ port: typeof address === 'object' && address ? address.port : 0, close: () => server.close() });
    });
  });

test('a port that is taken by either address of this computer is passed over', async () => {
  for (const host of ['127.0.0.1', '::1']) {
    const taken = await listening(host).catch(() => null);
    // A computer without the newer addresses has nothing to be passed over.
    if (!taken) continue;
    expect(await portFrom(taken.port)).toBeGreaterThan(taken.port);
    taken.close();
  }
});

test('another program that answers where ours should is not taken for it', async () => {
  const { port, close } = await listening('127.0.0.1');
  await expect(untilAnswers(`http://127.0.0.1:${port}/health`, 5)).rejects.toThrow('Another program answers');
  close();
});
