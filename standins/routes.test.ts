/** The stand-ins' own pages, as a merchant's page, a holder and a tester meet them. */
import { once } from 'node:events';
import { mkdtempSync } from 'node:fs';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createTransport } from 'nodemailer';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { PRETEND_CARDS } from './cards/pretend-cards';
import { startStandIns } from './server';

const MERCHANT = 'http://localhost:3000';
const AUTHORISED = { authorization: 'Bearer key', 'content-type': 'application/json' };
let standIns: Awaited<ReturnType<typeof startStandIns>>;
let url: string;
let folder: string;
const start = () =>
  startStandIns({
    folder,
    seed: 'routes',
    httpPort: 0,
    smtpPort: 0,
    apiKey: 'key',
    appOrigins: [MERCHANT],
    delay: [0, 0],
    late: { breaksMs: 0, knownMs: 0 },
    messagesApiKey: 'key',
    bankApiKey: 'key',
    identityApiKey: 'key',
    carrierApiKey: 'key',
    mailReports: { url: '', secret: 'secret', delayMs: 0 },
    webhookUrl: 'http://127.0.0.1:1/nobody',
    webhookSecret: 'secret',
    webhookDelayMs: 60_000,
  });
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'dahlia-routes-'));
  standIns = await start();
  url = `http://127.0.0.1:${standIns.httpPort}`;
});
afterAll(() => standIns.stop());

const post = (path: string, body: unknown, headers: Record<string, string> = AUTHORISED) =>
  fetch(`${url}${path}`, { method: 'POST', headers, body: JSON.stringify(body) });
const numberOf = (name: string) => PRETEND_CARDS.find((card) => card.name === name)?.number ?? '';
const tokenise = (fields: object) =>
  post('/cards/tokens', fields).then(async (answer) => ({ status: answer.status, said: await answer.json() }));

describe('card fields', () => {
  test('are framed by the merchant’s pages only', async () => {
    const page = await fetch(`${url}/cards/fields?origin=${encodeURIComponent(MERCHANT)}`);
    expect(page.headers.get('content-security-policy')).toContain(`frame-ancestors ${MERCHANT}`);
    expect(await page.text()).toContain('Security number');
    expect((await fetch(`${url}/cards/fields?origin=https://evil.example`)).status).toBe(403);
  });

  test.each([
    ['de', 'Gültig bis', 'MM / JJ', /16 Ziffern.*Drei Ziffern/],
    ['fr', 'Valable jusqu’à', 'MM / AA', /16 chiffres.*Trois chiffres/],
    ['es', 'Válida hasta', 'MM / AA', /16 cifras.*Tres cifras/],
    ['xx', 'Good until', 'MM / YY', /16 digits.*Three digits/],
  ])('speak the reader’s language: %s', async (lang, label, placeholder, wrong) => {
    const page = await fetch(`${url}/cards/fields?origin=${encodeURIComponent(MERCHANT)}&lang=${lang}`);
    const text = await page.text();
    for (const words of [label, placeholder]) expect(text).toContain(words);
    const { said } = await tokenise({ number: '1', expiry: '08/99', code: '', lang });
    expect(Object.values(said.troubles).join(' ')).toMatch(wrong);
  });

  test('give a token for a pretend card, and say what is wrong with anything else', async () => {
    const good = await tokenise({ number: numberOf('corvid-good'), expiry: '08 / 31', code: '123' });
    expect(good).toMatchObject({
      status: 200,
      said: { token: expect.stringMatching(/^tok_[0-9a-f]{24}$/), scheme: 'Corvid' },
    });
    const wrong: [object, string][] = [
      [{ number: '', expiry: '08/31', code: '123' }, 'number'],
      [{ number: '4000000000000000', expiry: '08/31', code: '123' }, 'number'],
      [{ number: numberOf('corvid-good'), expiry: '13/31', code: '123' }, 'expiry'],
      [{ number: numberOf('corvid-good'), expiry: '01/20', code: '123' }, 'expiry'],
      [{ number: numberOf('corvid-good'), expiry: '08/31', code: '12' }, 'code'],
    ];
    for (const [fields, field] of wrong) {
      const { status, said } = await tokenise(fields);
      expect(status).toBe(422);
      expect(Object.keys(said.troubles)).toEqual([field]);
    }
  });
});

describe('the merchant’s interface', () => {
  const sale = async (key: string, card: string) => {
    const { said } = await tokenise({ number: numberOf(card), expiry: '08/31', code: '123' });
    const request = {
      key,
      amount: 1000,
      currency: 'USD',
      token: said.token,
      reference: 'Shop',
      returnUrl: 'http://shop.example/back',
    };
    return (await post('/cards/api/sales', request)).json();
  };

  test('needs the key, knows no sale that was never made, and refuses an unknown token', async () => {
    expect((await fetch(`${url}/cards/api/book`)).status).toBe(401);
    expect((await fetch(`${url}/cards/api/sales/by-key/none`, { headers: AUTHORISED })).status).toBe(404);
    expect((await post('/cards/api/sales', { key: 'x', token: 'tok_none', amount: 1, currency: 'USD' })).status).toBe(
      422,
    );
  });

  test('voids and refunds what was sold, and no more', async () => {
    const first = await sale('void-me', 'corvid-good');
    expect((await post(`/cards/api/sales/${first.id}/void`, {})).status).toBe(200);
    expect((await post(`/cards/api/sales/${first.id}/refund`, { key: 'r', amount: 1 })).status).toBe(409);
    const second = await sale('refund-me', 'lumen-good');
    const refunded = await (await post(`/cards/api/sales/${second.id}/refund`, { key: 'r', amount: 400 })).json();
    expect(refunded.refunds).toMatchObject([{ amount: 400 }]);
    expect((await post(`/cards/api/sales/${second.id}/refund`, { key: 's', amount: 601 })).status).toBe(409);
  });

  test('the bank shows who asks for how much, takes one answer and sends the holder back', async () => {
    const asked = await sale('approve-me', 'lumen-approval');
    const page = await (await fetch(asked.approvalUrl)).text();
    expect(page).toContain('USD 10');
    expect(page).toContain('Shop');
    const answer = await fetch(asked.approvalUrl, {
      method: 'POST',
      body: new URLSearchParams({ answer: 'approve' }),
      redirect: 'manual',
    });
    expect(answer.status).toBe(303);
    expect(answer.headers.get('location')).toBe('http://shop.example/back');
    expect(await (await fetch(asked.approvalUrl)).text()).toContain('has been answered');
    expect((await fetch(`${url}/cards/bank/none`)).status).toBe(404);
  });
});

describe('the mailbox', () => {
  test('shows a mail with its parts and files; its HTML may neither run nor fetch anything', async () => {
    const transport = createTransport({ host: '127.0.0.1', port: standIns.smtpPort });
    await transport.sendMail({
      from: 's@one.example',
      to: 'reader@one.example',
      subject: 'Hello <there>',
      text: 'plain words',
      html: '<html><head></head><body><script>alert(1)</script>rich words</body></html>',
      attachments: [{ filename: 'a.pdf', content: Buffer.from('%PDF-1.7'), contentType: 'application/pdf' }],
    });
    transport.close();
    const list = await (await fetch(`${url}/mail?to=reader@one.example`)).text();
    expect(list).toContain('Hello &lt;there&gt;');
    const { messages } = await (await fetch(`${url}/mail/api/messages?to=reader@one.example`)).json();
    expect(messages).toMatchObject([
      { subject: 'Hello <there>', text: expect.stringContaining('plain words'), attachments: [{ filename: 'a.pdf' }] },
    ]);
    const page = await (await fetch(`${url}/mail/${messages[0].id}`)).text();
    expect(page).toContain('plain words');
    const html = await fetch(`${url}/mail/${messages[0].id}/html`);
    expect(html.headers.get('content-security-policy')).toContain("default-src 'none'");
    const file = await fetch(`${url}/mail/${messages[0].id}/files/0`);
    expect(await file.text()).toBe('%PDF-1.7');
    for (const path of ['/mail/999999', '/mail/999999/html', `/mail/${messages[0].id}/files/7`]) {
      expect((await fetch(`${url}${path}`)).status, path).toBe(404);
    }
  });
});

test('a client that is killed in the middle of a mail ends its own connection, not the mailbox', async () => {
  for (let client = 0; client < 5; client++) {
    const socket = connect(standIns.smtpPort, '127.0.0.1');
    await once(socket, 'data');
    socket.write('EHLO one.example\r\n');
    await once(socket, 'data');
    socket.write('MAIL FROM:<s@one.example>\r\nRCPT TO:<cut@one.example>\r\nDATA\r\nSubject: half');
    await once(socket, 'data');
    socket.resetAndDestroy();
    await once(socket, 'close');
  }
  const next = connect(standIns.smtpPort, '127.0.0.1');
  const [greeting] = await once(next, 'data');
  expect(String(greeting)).toMatch(/^220 /);
  next.destroy();
  expect((await (await fetch(`${url}/mail/api/messages?to=cut@one.example`)).json()).messages).toEqual([]);
});

test('the clock is read, set and moved, and what is no time is refused', async () => {
  const json = { 'content-type': 'application/json' };
  const offset = async () => ((await (await fetch(`${url}/clock`)).json()) as { offsetMs: number }).offsetMs;
  await post('/clock', { advanceDays: 2 }, json);
  expect(await offset()).toBe(2 * 86_400_000);
  await post('/clock', { set: '2030-01-01T00:00:00Z' }, json);
  expect(new Date((await (await fetch(`${url}/clock`)).json()).now).getUTCFullYear()).toBe(2030);
  for (const wrong of [{}, { set: 'soon' }, { advanceDays: 'many' }, { advanceDays: 1e9 }]) {
    expect((await post('/clock', wrong, json)).status, JSON.stringify(wrong)).toBe(400);
  }
  await post('/clock', { real: true }, json);
  expect(Math.abs(await offset())).toBeLessThan(50);
});

test('the page of stand-ins lists every pretend card', async () => {
  const page = await (await fetch(url)).text();
  for (const { number } of PRETEND_CARDS) expect(page).toContain(number.replace(/(.{4})(?=.)/g, '$1 '));
});

test('everything is still there after a restart', async () => {
  const before = await (await fetch(`${url}/cards/api/book`, { headers: AUTHORISED })).json();
  await standIns.stop();
  standIns = await start();
  url = `http://127.0.0.1:${standIns.httpPort}`;
  const after = await (await fetch(`${url}/cards/api/book`, { headers: AUTHORISED })).json();
  expect(after).toEqual(before);
  expect((await (await fetch(`${url}/mail/api/messages`)).json()).messages.length).toBe(1);
});
