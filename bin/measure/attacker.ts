/**
 * Hostile requests at a steady rate, until it is told to end.
 * `tsx bin/measure/attacker.ts WEB QUOTE_ADDRESS RATE one|many`: from one network address or each from another, as a proxy in front
 * would tell. Loopback only.
 */
const [web = '', quote = '', rate = '20', from = 'one'] = process.argv.slice(2);
if (!['localhost', '127.0.0.1'].includes(new URL(web).hostname))
  throw new Error('This attacks nothing but this computer');

// Bytes, made once: what this program spends on them is taken from those it is measured against.
const bytes = (text: string): Uint8Array<ArrayBuffer> => new TextEncoder().encode(text);
const fields = (n: number): Uint8Array<ArrayBuffer> =>
  bytes(`{${Array.from({ length: n }, (_, at) => `"field${at}":"${'x'.repeat(8)}"`).join(',')}}`);
const LARGE = fields(28_000);
const HUGE = bytes('x'.repeat(9_000_000));
const USUAL = fields(2500);
const DEEP = bytes(`{"choice":${'['.repeat(30_000)}${']'.repeat(30_000)}}`);
const ITEMS = bytes(JSON.stringify({ choice: { items: Array.from({ length: 4900 }, () => ({})) } }));
const EVENT = bytes('x'.repeat(9000));

let sent = 0;
const forwarded = () => ({ 'x-forwarded-for': from === 'one' ? '203.0.113.1' : `2001:db8:${sent.toString(16)}::1` });
const get = (path: string) => fetch(path, { headers: forwarded() });
const post = (path: string, body: Uint8Array<ArrayBuffer>) =>
  fetch(path, { method: 'POST', headers: { 'content-type': 'application/json', origin: web, ...forwarded() }, body });

let guesses = 0;
const KINDS: readonly (() => Promise<Response>)[] = [
  () => post(quote, LARGE),
  () => post(quote, HUGE),
  () => post(quote, USUAL),
  () => post(quote, DEEP),
  () => post(quote, ITEMS),
  () => get(`${web}/i/%ff`),
  () => get(`${web}/api/pay/${'x'.repeat(900)}/status?attempt=%00`),
  () => post(`${web}/api/sign-in`, bytes(JSON.stringify({ email: `guess${guesses++}@nobody.example`, password: 'x' }))),
  () => post(`${web}/api/hooks/cards`, EVENT),
  () => get(`${web}/api/health`),
];

const statuses: Record<string, number> = {};
const timer = setInterval(() => {
  const kind = KINDS[sent++ % KINDS.length];
  kind?.()
    .then(async (answer) => {
      statuses[`answered ${answer.status}`] = (statuses[`answered ${answer.status}`] ?? 0) + 1;
      await answer.arrayBuffer();
    })
    .catch(() => {
      statuses['cut off'] = (statuses['cut off'] ?? 0) + 1;
    });
}, 1000 / Number(rate));

process.once('SIGTERM', () => {
  clearInterval(timer);
  process.stdout.write(JSON.stringify({ sent, ...statuses }), () => process.exit(0));
});
