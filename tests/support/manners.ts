/** Outside services with bad manners: a proxy before one that is asked over HTTP, and one before the mail server, that misbehave on request. */
import { createServer, type IncomingMessage, request, type ServerResponse } from 'node:http';
import { connect, createServer as createTcpServer, type Socket, type Server as TcpServer } from 'node:net';

/** What a card processor can do wrong with one call, before or after it has done what was asked. */
export const CARD_MANNERS = [
  'error-before',
  'error-after',
  'turned-away',
  'redirects',
  'page-instead',
  'half-an-answer',
  'empty-answer',
  'breaks-before',
  'breaks-after',
  'slow',
  'wrong-types',
  'unknown-status',
  'twice',
] as const;
export type CardManner = (typeof CARD_MANNERS)[number];

/** What a mail server can do wrong with one connection. */
export const MAIL_MANNERS = [
  'never-greets',
  'breaks-at-once',
  'busy',
  'silent-in-between',
  'breaks-after-taking',
] as const;
export type MailManner = (typeof MAIL_MANNERS)[number];

type Forwarded = { readonly status: number; readonly body: string };

const forward = (target: URL, from: IncomingMessage, body: Buffer): Promise<Forwarded> =>
  new Promise((resolve, reject) => {
    const { host: _host, connection: _connection, ...headers } = from.headers;
    const on = request(
      { hostname: target.hostname, port: target.port, method: from.method, path: from.url, headers, agent: false },
      (answer) => {
        const pieces: Buffer[] = [];
        answer.on('data', (piece: Buffer) => pieces.push(piece));
        answer.on('end', () =>
          resolve({ status: answer.statusCode ?? 0, body: Buffer.concat(pieces).toString('utf8') }),
        );
        answer.on('error', reject);
      },
    );
    on.on('error', reject);
    on.end(body);
  });

async function misbehave(
  manner: CardManner | null,
  done: () => Promise<Forwarded>,
  response: ServerResponse,
  slowMs: number,
): Promise<void> {
  const say = (status: number, body: string, headers = {}) =>
    response.writeHead(status, { 'content-type': 'application/json', ...headers }).end(body);
  switch (manner) {
    case 'error-before':
      return void say(500, '{"error":"out of order"}');
    case 'error-after':
      await done();
      return void say(500, '{"error":"out of order"}');
    case 'turned-away':
      return void say(401, '{"error":"unknown key"}');
    case 'redirects':
      return void say(302, '{}', { location: 'http://127.0.0.1:1/elsewhere' });
    case 'page-instead':
      return void say(200, '<!doctype html><title>Welcome</title>', { 'content-type': 'text/html' });
    case 'half-an-answer': {
      const { body } = await done();
      return void say(200, body.slice(0, body.length / 2));
    }
    case 'empty-answer':
      await done();
      return void say(200, '');
    case 'breaks-before':
      return void response.socket?.destroy();
    case 'breaks-after':
      await done();
      return void response.socket?.destroy();
    case 'slow': {
      const { status, body } = await done();
      await new Promise((resolve) => setTimeout(resolve, slowMs));
      return void say(status, body);
    }
    case 'wrong-types':
      await done();
      return void say(200, '{"id":[],"status":"accepted","fee":"much","card":{"scheme":1,"last4":{}},"sales":{}}');
    case 'unknown-status':
      await done();
      return void say(200, '{"id":"x","status":"pondering","fee":0,"reason":null,"card":null}');
    case 'twice':
      await done();
      break;
  }
  const { status, body } = await done();
  say(status, body);
}

export type Rude<Manner> = {
  readonly port: number;
  /** @param next how to behave with the next call, at which path where it has one */
  behave: (next: (path: string) => Manner | null) => void;
  readonly stop: () => Promise<void>;
};

/** Lets a server listen on loopback; at which port. */
async function portOf(server: TcpServer): Promise<number> {
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const address = server.address();
  return typeof address === 'object' && address ? address.port : 0;
}

/** A proxy before stand-ins over HTTP. @param target their origin, asked for with each call @param slowMs longer than its callers wait */
export async function rudeService(target: () => string, slowMs: number): Promise<Rude<CardManner>> {
  let next: (path: string) => CardManner | null = () => null;
  const server = createServer((from, response) => {
    const pieces: Buffer[] = [];
    from.on('data', (piece: Buffer) => pieces.push(piece));
    from.on('end', () => {
      const manner = next(from.url ?? '');
      misbehave(manner, () => forward(new URL(target()), from, Buffer.concat(pieces)), response, slowMs).catch(() =>
        response.socket?.destroy(),
      );
    });
    from.on('error', () => undefined);
  });
  server.keepAliveTimeout = 120_000;
  return {
    port: await portOf(server),
    behave: (chosen) => {
      next = chosen;
    },
    stop: () =>
      new Promise((resolve) => {
        server.closeAllConnections();
        server.close(() => resolve());
      }),
  };
}

function rudely(manner: MailManner | null, line: Socket, port: number): void {
  if (manner === 'never-greets') return;
  if (manner === 'breaks-at-once') return void line.destroy();
  if (manner === 'busy') return void line.end('421 Too busy, try later\r\n');
  const server = connect(port, '127.0.0.1');
  server.on('error', () => line.destroy());
  line.on('error', () => server.destroy());
  line.on('close', () => server.destroy());
  server.on('close', () => line.destroy());
  line.pipe(server);
  let taken = false;
  server.on('data', (piece: Buffer) => {
    const words = piece.toString('latin1');
    if (manner === 'silent-in-between' && words.startsWith('250')) return;
    // What follows 354 is the mail itself; its answer never arrives.
    if (manner === 'breaks-after-taking' && taken && words.startsWith('250')) return void line.destroy();
    if (words.includes('354')) taken = true;
    line.write(piece);
  });
}

/** A proxy before the stand-ins' mail server. */
export async function rudeMail(port: () => number): Promise<Rude<MailManner>> {
  let next: (path: string) => MailManner | null = () => null;
  const lines = new Set<Socket>();
  const server = createTcpServer((line) => {
    lines.add(line);
    line.on('close', () => lines.delete(line));
    line.on('error', () => undefined);
    rudely(next(''), line, port());
  });
  return {
    port: await portOf(server),
    behave: (chosen) => {
      next = chosen;
    },
    stop: () =>
      new Promise((resolve) => {
        for (const line of lines) line.destroy();
        server.close(() => resolve());
      }),
  };
}
