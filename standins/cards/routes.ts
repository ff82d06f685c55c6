import { readFileSync } from 'node:fs';
import type { HttpBindings } from '@hono/node-server';
import { Hono } from 'hono';
import type { Seeded } from '../seeded';
import { bankPage, rehearsalBankPage } from './bank-page';
import { debitPages } from './debit-pages';
import { disputePages } from './dispute-pages';
import { fieldsPage, fieldsScript, TAKES } from './fields-page';
import { FIELDS_WORDS, type FieldsWords, fieldsLanguage } from './fields-words';
import { accountByNumber } from './pretend-accounts';
import { cardByNumber } from './pretend-cards';
import type { Processor, Sale } from './processor';
import { type Terms, termsRoutes } from './terms';

export type CardOptions = {
  readonly apiKey: string;
  /** Origins whose pages may frame the card fields. */
  readonly appOrigins: readonly string[];
  /** Least and most milliseconds before a sale is answered. */
  readonly delay: readonly [number, number];
  /** A sale with a late card: milliseconds until the line breaks without an answer, and until its outcome is known. */
  readonly late: { readonly breaksMs: number; readonly knownMs: number };
};

const FONT = 'node_modules/@fontsource-variable/encode-sans/files/encode-sans-latin-wght-normal.woff2';
const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

function answer(sale: Sale, base: string) {
  if (sale.knownAt > Date.now()) return { status: 'processing', key: sale.key };
  return { ...sale, ...(sale.status === 'approval' ? { approvalUrl: `${base}/bank/${sale.id}` } : {}) };
}

/** What is wrong with what the holder typed, by field; empty when it can be used. */
function typingTroubles(typed: Record<string, unknown>, today: Date, words: FieldsWords): Record<string, string> {
  const digits = String(typed.number ?? '').replace(/\s/g, '');
  const [month, year] = String(typed.expiry ?? '')
    .split('/')
    .map((part) => Number(part.trim()));
  const ends = month && year !== undefined ? new Date(Date.UTC(2000 + (year % 100), month, 1)) : null;
  return {
    ...(/^\d{16}$/.test(digits) ? {} : { number: words.numberDigits }),
    ...(/^\d{16}$/.test(digits) && !cardByNumber(digits) ? { number: words.numberPretend } : {}),
    ...(ends && month && month >= 1 && month <= 12 ? {} : { expiry: words.expiryWrong }),
    ...(ends && ends <= today ? { expiry: words.expired } : {}),
    ...(/^\d{3}$/.test(String(typed.code ?? '')) ? {} : { code: words.codeDigits }),
  };
}

/** The same of a bank account. */
function accountTroubles(typed: Record<string, unknown>, words: FieldsWords): Record<string, string> {
  const digits = String(typed.account ?? '').replace(/\s/g, '');
  return {
    ...(/^\d{12}$/.test(digits) ? {} : { account: words.accountDigits }),
    ...(/^\d{12}$/.test(digits) && !accountByNumber(digits) ? { account: words.accountPretend } : {}),
    ...(String(typed.holder ?? '').trim() ? {} : { holder: words.holderMissing }),
  };
}

/** The processor's own pages and its interface for merchants. */
export function cardRoutes(
  processor: Processor,
  terms: Terms,
  seeded: Seeded,
  now: () => number,
  options: CardOptions,
): Hono {
  const app = new Hono();
  const frameAncestors = options.appOrigins.join(' ');

  app.get('/fields', (c) => {
    // Inside a checkout that itself stands in a frame: its own policy says on whose pages; the token goes to its origin only.
    const above = c.req.query('framed') === 'yes' ? '*' : frameAncestors;
    c.header(
      'content-security-policy',
      `default-src 'self'; style-src 'self' 'unsafe-inline'; frame-ancestors ${above}`,
    );
    const origin = c.req.query('origin') ?? '';
    if (!options.appOrigins.includes(origin)) return c.text('This page may not show card fields.', 403);
    const take = TAKES.find((known) => known === c.req.query('take')) ?? 'card';
    const lang = fieldsLanguage(c.req.query('lang') ?? '');
    return c.html(fieldsPage(origin, c.req.query('look') === 'night', take, lang));
  });
  app.get('/fields.js', (c) => c.body(fieldsScript, 200, { 'content-type': 'text/javascript; charset=utf-8' }));
  app.get('/fields.woff2', (c) =>
    c.body(new Uint8Array(readFileSync(FONT)), 200, { 'content-type': 'font/woff2', 'cache-control': 'max-age=86400' }),
  );
  app.post('/tokens', async (c) => {
    const typed = (await c.req.json().catch(() => ({}))) as Record<string, unknown>;
    const isAccount = typed.account !== undefined;
    const words = FIELDS_WORDS[fieldsLanguage(String(typed.lang ?? ''))];
    const troubles = isAccount ? accountTroubles(typed, words) : typingTroubles(typed, new Date(now()), words);
    const card = isAccount ? accountByNumber(String(typed.account)) : cardByNumber(String(typed.number ?? ''));
    if (Object.keys(troubles).length > 0 || !card) return c.json({ troubles }, 422);
    return c.json({ token: processor.tokenFor(card.name), scheme: card.scheme, last4: card.number.slice(-4) });
  });

  app.get('/bank/rehearsal', (c) => c.html(rehearsalBankPage(c.req.query('return') ?? '', options.appOrigins)));
  app.get('/bank/:sale', (c) => {
    const sale = processor.saleById(c.req.param('sale'));
    return sale ? c.html(bankPage(sale)) : c.text('There is no such payment.', 404);
  });
  app.post('/bank/:sale', async (c) => {
    const form = await c.req.formData();
    const sale = processor.approve(c.req.param('sale'), form.get('answer') === 'approve');
    return sale ? c.redirect(sale.returnUrl, 303) : c.text('There is no such payment.', 404);
  });

  const api = new Hono();
  api.use(async (c, next) => {
    if (c.req.header('authorization') !== `Bearer ${options.apiKey}`) return c.json({ error: 'unknown key' }, 401);
    await next();
  });
  const base = (url: string) => new URL('/cards', url).toString();
  api.post('/sales', async (c) => {
    const request = await c.req.json();
    await pause(seeded.between(`delay ${request.key}`, options.delay[0], options.delay[1]));
    const made = processor.sell(request);
    if (!made) return c.json({ error: 'unknown token or card' }, 422);
    if (made.late) {
      await pause(options.late.breaksMs);
      (c.env as HttpBindings).incoming.socket.destroy();
    }
    return c.json(answer(made.sale, base(c.req.url)));
  });
  api.get('/tokens/:token', (c) => {
    const card = processor.cardOf(c.req.param('token'));
    return card ? c.json({ card }) : c.json({ error: 'unknown token' }, 404);
  });
  api.post('/cards', async (c) => {
    const { token, key } = await c.req.json();
    const card = processor.keepCard(String(token), String(key));
    return card ? c.json({ card }) : c.json({ error: 'unknown token' }, 422);
  });
  api.get('/health', (c) => c.json({ ok: true, now: new Date().toISOString() }));
  api.get('/cards', (c) => c.json({ cards: processor.keptCards(c.req.query('prefix') ?? '') }));
  api.get('/cards/by-key/:key', (c) => {
    const card = processor.keptUnder(c.req.param('key'));
    return card ? c.json({ card }) : c.json({ error: 'not kept' }, 404);
  });
  api.post('/cards/by-key/:key/close', (c) => {
    processor.closeCardKey(c.req.param('key'));
    return c.json({ closed: true });
  });
  api.get('/cards/:id', (c) => {
    const card = processor.keptCard(c.req.param('id'));
    return card ? c.json({ card }) : c.json({ error: 'not kept' }, 404);
  });
  api.delete('/cards/:id', (c) =>
    processor.dropCard(c.req.param('id')) ? c.json({ dropped: true }) : c.json({ error: 'not kept' }, 404),
  );
  api.post('/rehearsals', async (c) => {
    const sale = processor.rehearse(await c.req.json());
    if (!sale) return c.json({ error: 'unknown token' }, 422);
    return c.json({
      ...sale,
      ...(sale.status === 'approval' ? { approvalUrl: `${base(c.req.url)}/bank/rehearsal` } : {}),
    });
  });
  api.get('/sales/by-key/:key', (c) => {
    const sale = processor.ask(c.req.param('key'));
    return sale ? c.json(answer(sale, base(c.req.url))) : c.json({ error: 'never seen' }, 404);
  });
  api.post('/sales/by-key/:key/close', (c) => c.json(answer(processor.close(c.req.param('key')), base(c.req.url))));
  api.post('/sales/:id/void', (c) => {
    const sale = processor.void(c.req.param('id'));
    return sale ? c.json(answer(sale, base(c.req.url))) : c.json({ error: 'cannot be voided' }, 409);
  });
  api.post('/sales/:id/refund', async (c) => {
    const { key, amount } = await c.req.json();
    const sale = processor.refund(c.req.param('id'), String(key), Number(amount));
    return sale ? c.json(answer(sale, base(c.req.url))) : c.json({ error: 'cannot be refunded' }, 409);
  });
  api.get('/book', (c) => c.json({ sales: processor.book() }));
  api.post('/book', async (c) => c.json({ sales: processor.bookOf(await c.req.json()) }));
  api.get('/terms/:business', (c) => c.json(terms.of(c.req.param('business'))));
  api.get('/disputes', (c) =>
    c.json({
      disputes: processor
        .disputed(c.req.query('prefix') ?? '')
        .map(({ key, currency, dispute }) => ({ key, currency, ...dispute })),
    }),
  );
  api.get('/returns', (c) =>
    c.json({
      returns: processor
        .debits(c.req.query('prefix') ?? '')
        .flatMap(({ key, currency, returned }) => (returned ? [{ key, currency, ...returned }] : [])),
    }),
  );
  api.post('/disputes/:id/answer', async (c) => {
    const { kind, file } = (await c.req.json()) as { kind?: string; file?: string };
    if (kind !== 'accept' && (kind !== 'file' || !file)) return c.json({ error: 'neither a file nor accepted' }, 422);
    const bytes = Buffer.byteLength(file ?? '', 'base64');
    const sale = processor.answerDispute(c.req.param('id'), kind, bytes);
    if (sale === null) return c.json({ error: 'no such dispute' }, 404);
    return sale === 'late'
      ? c.json({ error: 'not answered any more' }, 409)
      : c.json({ id: sale.dispute?.id, answered: true });
  });
  app.route('/api', api);
  app.route('/disputes', disputePages(processor));
  app.route('/debits', debitPages(processor));
  app.route('/terms', termsRoutes(terms));
  return app;
}
