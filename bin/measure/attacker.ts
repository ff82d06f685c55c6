/** Hostile requests at a steady rate, until it is told to end: tsx bin/measure/attacker.ts WEB QUOTE_ADDRESS RATE. Loopback only. */
const [web = '', quote = '', rate = '20'] = process.argv.slice(2);
if (!['localhost', '127.0.0.1'].includes(new URL(web).hostname))
  throw new Error('This attacks nothing but this computer');

const fields = (n: number): string =>
  `{${Array.from({ length: n }, (_, at) => `"field${at}":"${'x'.repeat(8)}"`).join(',')}}`;
const LARGE = fields(28_000);
const HUGE = 'x'.repeat(9_000_000);
const USUAL = fields(2500);
const DEEP = `{"choice":${'['.repeat(30_000)}${']'.repeat(30_000)}}`;
const ITEMS = JSON.stringify({ choice: { items: Array.from({ length: 4900 }, () => ({})) } });

const post = (path: string, body: string) =>
  fetch(path, { method: 'POST', headers: { 'content-type': 'application/json', origin: web }, body });

let guesses = 0;
const KINDS: readonly (() => Promise<Response>)[] = [
  () => post(quote, LARGE),
  () => post(quote, HUGE),
  () => post(quote, USUAL),
  () => post(quote, DEEP),
  () => post(quote, ITEMS),
  () => fetch(`${web}/i/%ff`),
  () => fetch(`${web}/api/pay/${'x'.repeat(900)}/status?attempt=%00`),
  () => post(`${web}/api/sign-in`, JSON.stringify({ email: `guess${guesses++}@nobody.example`, password: 'x' })),
  () => post(`${web}/api/hooks/cards`, 'x'.repeat(9000)),
  () => fetch(`${web}/api/health`),
];

const statuses: Record<string, number> = {};
let sent = 0;
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
