import { createServer } from 'node:net';

/** Whether nobody listens at a port of one address; an address that this computer does not have is free. */
const freeAt = (port: number, host: string): Promise<boolean> =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', (error) => resolve('code' in error && error.code !== 'EADDRINUSE' && error.code !== 'EACCES'));
    probe.listen(port, host, () => probe.close(() => resolve(true)));
  });

/** How far from a port its guard listens: above it, where there is one. */
const GUARD = 20_000;
const guardOf = (port: number): number => (port + GUARD < 65_536 ? port + GUARD : port - GUARD);

/**
 * Keeps a port for this process until it ends, by listening at another one beside it: between looking for a port and a program's
 * taking it somebody else who looks the same way finds the guard. The system lets it go whatever becomes of this process.
 *
 * @returns how it is let go of; null where somebody else has it
 */
const kept = (port: number): Promise<(() => Promise<void>) | null> =>
  new Promise((resolve) => {
    const guard = createServer((socket) => socket.destroy());
    guard.once('error', () => resolve(null));
    guard.listen({ port: guardOf(port), host: '127.0.0.1', exclusive: true }, () => {
      guard.unref();
      resolve(() => new Promise((closed) => guard.close(() => closed())));
    });
  });

/**
 * The first port on loopback from `wanted` on that is free by either address (a browser that asks for localhost tries both), kept for
 * this process: two that look at once get two.
 */
export async function portFrom(wanted: number): Promise<number> {
  for (let port = wanted; port < wanted + 200; port++) {
    const letGo = await kept(port);
    if (!letGo) continue;
    if ((await freeAt(port, '127.0.0.1')) && (await freeAt(port, '::1'))) return port;
    await letGo();
  }
  throw new Error(`No free port from ${wanted} on`);
}
