import { createServer } from 'node:net';

const free = (port: number): Promise<boolean> =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(false));
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)));
  });

/** The first free port on loopback from `wanted` on. */
export async function portFrom(wanted: number): Promise<number> {
  for (let port = wanted; port < wanted + 200; port++) if (await free(port)) return port;
  throw new Error(`No free port from ${wanted} on`);
}
