import { mkdtempSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { money } from '@/core/money/money';
import { eventSignature } from '../../standins/cards/webhooks';
import { startStandIns } from '../../standins/server';
import { CARD_MANNERS, MAIL_MANNERS, rudeMail, rudeService } from '../../tests/support/manners';
import { until } from '../../tests/support/until';
import { cardToken, mailOf } from '../../tests/support/workshop';
import { type CardProcessor, cardProcessor } from './cards';
import { movableClock } from './clock';
import { type Post, smtpPost } from './mail';
import { isGenuineEvent } from './signed-event';

let standIns: Awaited<ReturnType<typeof startStandIns>>;
let url: string;
let cards: CardProcessor;
let post: Post;
const heard: { body: string; time: string; signature: string }[] = [];
const listener = createServer((request, response) => {
  let body = '';
  request.on('data', (chunk) => {
    body += chunk;
  });
  request.on('end', () => {
    heard.push({
      body,
      time: String(request.headers['x-event-time']),
      signature: String(request.headers['x-event-signature']),
    });
    // The first time nobody is at home: an event is told until it is confirmed.
    response.writeHead(heard.length === 1 ? 503 : 200).end();
  });
});

beforeAll(async () => {
  await new Promise<void>((resolve) => listener.listen(0, '127.0.0.1', resolve));
  const address = listener.address();
  standIns = await startStandIns({
    folder: mkdtempSync(join(tmpdir(), 'dahlia-outside-')),
    seed: 'outside',
    httpPort: 0,
    smtpPort: 0,
    apiKey: 'key',
    appOrigins: ['http://localhost:1'],
    delay: [0, 0],
    late: { breaksMs: 3_600_000, knownMs: 3_600_000 },
    messagesApiKey: 'messages',
    bankApiKey: 'messages',
    identityApiKey: 'messages',
    carrierApiKey: 'messages',
    mailReports: { url: '', secret: 'mail', delayMs: 0 },
    webhookUrl: `http://127.0.0.1:${typeof address === 'object' ? address?.port : 0}`,
    webhookSecret: 'secret',
    webhookDelayMs: 0,
  });
  url = `http://127.0.0.1:${standIns.httpPort}`;
  cards = cardProcessor({ url: `${url}/cards`, apiKey: 'key', timeoutMs: 60_000 });
  post = smtpPost(`smtp://127.0.0.1:${standIns.smtpPort}`);
});
afterAll(async () => {
  await standIns.stop();
  listener.close();
});

const sale = async (key: string, card: string, by = cards) =>
  by.sale({
    key,
    amount: money(1000n, 'USD'),
    token: await cardToken(url, card),
    reference: 'r',
    returnUrl: 'http://x',
  });

describe('the contract of a card processor', () => {
  test('a sale is accepted, and asked about it is the same', async () => {
    // 2.9 percent of 10.00 is 0.29, and 0.30.
    const made = await sale('a', 'corvid-good');
    expect(made).toMatchObject({ kind: 'accepted', feeMinor: 59n, card: { scheme: 'Corvid' } });
    expect(await cards.ask('a')).toEqual(made);
    expect(await sale('a', 'corvid-poor')).toEqual(made);
  });
  test.each([
    ['corvid-poor', 'not-enough-money'],
    ['lumen-limit', 'over-limit'],
    ['corvid-blocked', 'card-blocked'],
    ['lumen-code', 'wrong-security-number'],
    ['corvid-silent', 'refused'],
  ])('%s is refused: %s', async (card, reason) =>
    expect(await sale(card, card)).toMatchObject({ kind: 'refused', reason }),
  );
  test('no answer in time is not knowing, until it is known', async () => {
    const impatient = cardProcessor({ url: `${url}/cards`, apiKey: 'key', timeoutMs: 200 });
    expect(await sale('late', 'corvid-late', impatient)).toEqual({ kind: 'unknown' });
    await until('it has arrived there', async () => (await cards.ask('late')).kind !== 'never-seen');
    expect(await cards.ask('late')).toEqual({ kind: 'unknown' });
    expect(await cards.close('late')).toEqual({ kind: 'unknown' });
  });
  test('a key that it never saw is said, and can be closed', async () => {
    expect(await cards.ask('never')).toEqual({ kind: 'never-seen' });
    expect(await cards.close('never')).toMatchObject({ kind: 'refused', reason: 'never-charged' });
    expect(await sale('never', 'corvid-good')).toMatchObject({ kind: 'refused' });
  });
  test('an outage is not knowing, never an error', async () => {
    const nobody = cardProcessor({ url: 'http://127.0.0.1:1', apiKey: 'key', timeoutMs: 60_000 });
    expect(await nobody.ask('x')).toEqual({ kind: 'unknown' });
    expect(await nobody.clock()).toBeNull();
    expect((await cards.clock())?.getTime()).toBeGreaterThan(0);
  });
  test('another merchant’s key is turned away', async () => {
    const other = cardProcessor({ url: `${url}/cards`, apiKey: 'wrong', timeoutMs: 60_000 });
    expect(await other.ask('a')).toEqual({ kind: 'unknown' });
  });
});

test('events are signed, told until confirmed, and a forged or old one is not believed', async () => {
  await sale('event', 'lumen-good');
  const keys = () => heard.map(({ body }) => JSON.parse(body).key);
  await until('the event is told again', async () => keys().includes('event') && heard.length > 1);
  const event = heard.find(({ body }) => body.includes('"event"')) ?? heard[0];
  if (!event) throw new Error('No event came');
  expect(isGenuineEvent('secret', event.time, event.signature, event.body)).toBe(true);
  expect(isGenuineEvent('secret', event.time, event.signature, `${event.body} `)).toBe(false);
  expect(isGenuineEvent('other', event.time, event.signature, event.body)).toBe(false);
  const old = String(Number(event.time) - 400);
  expect(isGenuineEvent('secret', old, eventSignature('secret', old, event.body), event.body)).toBe(false);
  expect(isGenuineEvent('secret', 'soon', 'zz', event.body)).toBe(false);
});

describe('a card processor with bad manners', () => {
  test.each(CARD_MANNERS)(
    '%s: nothing is taken for what it is not, and asked again the truth is told',
    async (manner) => {
      const rude = await rudeService(() => url, 3000);
      const hasty = cardProcessor({ url: `http://127.0.0.1:${rude.port}/cards`, apiKey: 'key', timeoutMs: 1000 });
      const key = `rude ${manner}`;
      rude.behave(() => manner);
      const first = await sale(key, 'corvid-good', hasty);
      expect(['unknown', ...(manner === 'twice' ? ['accepted'] : [])]).toContain(first.kind);
      if (manner !== 'twice') {
        expect(await hasty.clock()).toBeNull();
        expect(await hasty.keptCards('')).toBeNull();
        expect(await hasty.book({ prefix: '', from: new Date(0), to: new Date(), keys: [] })).toBeNull();
        expect(await hasty.cardOf('tok')).toBeNull();
        expect(await hasty.keepCard('tok', key)).toBeNull();
        expect(await hasty.void('x')).toBeNull();
        expect(await hasty.disputes('')).toBeNull();
        expect(await hasty.answerDispute('x', Buffer.from('%PDF-1.7'))).toBeNull();
      }
      rude.behave(() => null);
      const asked = await hasty.ask(key);
      expect(['accepted', 'never-seen']).toContain(asked.kind);
      const made = asked.kind === 'never-seen' ? await sale(key, 'corvid-good', hasty) : asked;
      expect(made).toMatchObject({ kind: 'accepted', feeMinor: 59n });
      expect((await cards.book({ prefix: key, from: new Date(0), to: new Date('2999-01-01'), keys: [] }))?.length).toBe(
        1,
      );
      await rude.stop();
    },
  );
});

describe('a mail server with bad manners', () => {
  const mail = (id: string) => ({
    messageId: `<${id}@x>`,
    from: { name: 'S', address: 's@x.example' },
    replyTo: 's@x.example',
    to: { name: 'P', address: `${id}@rude.example` },
    subject: 'Hello',
    text: 't',
    html: '<p>t</p>',
    attachments: [],
  });
  test.each(MAIL_MANNERS)('%s: handing over fails for now within its time, and later is done', async (manner) => {
    const rude = await rudeMail(() => standIns.smtpPort);
    const hasty = smtpPost(`smtp://127.0.0.1:${rude.port}`, { greetingTimeout: 500, socketTimeout: 500, whole: 4000 });
    rude.behave(() => manner);
    await expect(hasty.handOver(mail(manner))).rejects.not.toMatchObject({ name: 'MailRefused' });
    if (manner !== 'breaks-after-taking') expect(await hasty.answers()).toBe(false);
    rude.behave(() => null);
    await hasty.handOver(mail(manner));
    expect(await hasty.answers()).toBe(true);
    const ids = new Set((await mailOf(url, `${manner}@rude.example`)).map(({ messageId }) => messageId));
    expect([...ids]).toEqual([`<${manner}@x>`]);
    await rude.stop();
  });
});

describe('handing mail over', () => {
  const mail = (address: string, name = 'P') => ({
    messageId: '<m@x>',
    from: { name: 'S', address: 's@x.example' },
    replyTo: 's@x.example',
    to: { name, address },
    subject: 'Hello',
    text: 't',
    html: '<p>t</p>',
    attachments: [],
  });
  test('a line break in a name or address reaches nobody else', async () => {
    await post.handOver(mail('a@one.example', 'P\r\nBcc: thief@evil.example')).catch(() => undefined);
    await post.handOver(mail('b@one.example>\r\nRCPT TO:<thief@evil.example')).catch(() => undefined);
    expect(await mailOf(url, 'thief@evil.example')).toEqual([]);
  });
  test('no for good and no for now are told apart', async () => {
    await expect(post.handOver(mail('refused@one.example'))).rejects.toMatchObject({ name: 'MailRefused' });
    await expect(post.handOver(mail('later@one.example'))).rejects.not.toMatchObject({ name: 'MailRefused' });
  });
});

test('the clock follows when it is moved, and stays while nobody answers', async () => {
  const clock = movableClock(`${url}/clock`, 0);
  const before = (await clock.now()).getTime();
  await fetch(`${url}/clock`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: '{"advanceDays":3}',
  });
  expect((await clock.now()).getTime() - before).toBeGreaterThanOrEqual(3 * 86_400_000);
  const lost = movableClock('http://127.0.0.1:1');
  const [from, said, to] = [Date.now(), await lost.now(), Date.now()];
  expect(said.getTime()).toBeGreaterThanOrEqual(from);
  expect(said.getTime()).toBeLessThanOrEqual(to);
});
