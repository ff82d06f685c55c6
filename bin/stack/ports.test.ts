import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { expect, test } from 'vitest';
import { portFrom } from './ports';

/** Where nothing else in this project looks. */
const FROM = 7300;

test('several that look for a port at once get one each, in one process and in several, and a process that is killed lets go of its own', async () => {
  const own = await Promise.all(Array.from({ length: 8 }, () => portFrom(FROM)));
  expect(new Set(own).size).toBe(own.length);
  const script = `import('./bin/stack/ports.ts').then(({ portFrom }) => portFrom(${FROM}))
    .then((port) => { process.stdout.write(String(port)); setInterval(() => {}, 1000); });`;
  const others = await Promise.all(
    Array.from({ length: 2 }, async () => {
      const child = spawn(process.execPath, ['--import', 'tsx', '-e', script], {
        stdio: ['ignore', 'pipe', 'inherit'],
      });
      const [said] = (await once(child.stdout, 'data')) as [Buffer];
      return { child, port: Number(String(said)) };
    }),
  );
  const all = [...own, ...others.map(({ port }) => port)];
  expect(new Set(all).size).toBe(all.length);
  const [first] = others;
  for (const { child } of others) {
    child.kill('SIGKILL');
    await once(child, 'close');
  }
  expect(await portFrom(first?.port ?? FROM)).toBe(first?.port);
});
