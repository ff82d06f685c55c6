import { createServer } from 'node:net';

/** Whether nobody listens at a port of one address; an address that this computer does not have is free. */
const freeAt = (port: number, host: string): Promise<boolean> =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', (error) => resolve('code' in error && error.code !== 'EADDRINUSE' && error.code !== 'EACCES'));
    probe.listen(port, host, () => probe.close(() => resolve(true)));
  });

/** The first port on loopback from `wanted` on that is free by either address: a browser that asks for localhost tries both. */
export async function portFrom(wanted: number): Promise<number> {
  for (let port = wanted; port < wanted + 200; port++) {
    if ((await freeAt(port, '127.0.0.1')) && (await freeAt(port, '::1'))) return port;
  }
  throw new Error(`No free port from ${wanted} on`);
}
