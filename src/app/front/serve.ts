import { createServer } from 'node:http';
import { parseArgs } from 'node:util';
import { Front } from './front';
import { Requests } from './requests';

/** A line that is kept is closed by whoever called, not in the moment in which they call again. */
const IDLE_LINE_MS = 120_000;
/** All of a request's head, and all of its body on a slow line from a phone. */
const HEAD_MS = 20_000;
const WHOLE_MS = 150_000;
/** So long what is being answered may take when the program is asked to end. */
const LAST_MS = 5000;

/** Serves until it is told to end: what can be refused without the framework is, all else goes to it. */
export async function serve(): Promise<void> {
  const { port, host } = parseArgs({
    options: { port: { type: 'string', default: '3000' }, host: { type: 'string', default: '127.0.0.1' } },
  }).values;
  const { default: next } = await import('next');
  const application = next({ dev: false, hostname: host, port: Number(port) });
  await application.prepare();
  const answer = application.getRequestHandler();
  const now = () => performance.now();
  const front = new Front((request, response) => void answer(request, response), now);
  const counted = new Requests(now);

  const server = createServer({ keepAliveTimeout: IDLE_LINE_MS, headersTimeout: HEAD_MS, requestTimeout: WHOLE_MS });
  server.on('request', (request, response) => {
    counted.count(request, response);
    front.answer(request, response);
  });
  server.on('checkContinue', (request, response) => front.answer(request, response, true));
  server.listen(Number(port), host);

  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.once(signal, () => {
      server.close(() => process.exit(0));
      server.closeIdleConnections();
      setTimeout(() => process.exit(0), LAST_MS).unref();
    });
  }
}
