import { createHash } from 'node:crypto';
import { Hono } from 'hono';
import { html } from 'hono/html';
import { page } from '../pages/layout';
import type { Check, Checks, Looked } from './checks';

const text = (value: unknown, most = 140): string =>
  String(value ?? '')
    .trim()
    .slice(0, most);

/** The bytes that a JPEG begins with. */
const JPEG = Buffer.from([0xff, 0xd8, 0xff]);

/** Somebody as they were sent; of their pictures nothing is kept but the hash. Null where one of them is no picture. */
function lookedAt(given: unknown): Looked | null {
  const { name, born, country, pictures } = (given ?? {}) as Record<string, unknown>;
  if (!Array.isArray(pictures)) return null;
  const kept = pictures.map((one: Record<string, unknown>) => ({
    side: text(one.side, 10),
    bytes: Buffer.from(String(one.bytes ?? ''), 'base64'),
  }));
  if (kept.length === 0 || kept.some(({ bytes }) => !bytes.subarray(0, 3).equals(JPEG))) return null;
  return {
    name: text(name),
    born: text(born, 10),
    country: text(country, 2),
    pictures: kept.map(({ side, bytes }) => ({ side, sha256: createHash('sha256').update(bytes).digest('hex') })),
  };
}

const told = ({ key, state, reason }: Check) => ({ key, state, reason });

const STATES: readonly Check['state'][] = ['accepted', 'asked', 'refused'];

/** The office's counter: checks are begun and asked for; and a page on which they can be decided by hand. */
export function identityRoutes(checks: Checks, apiKey: string): Hono {
  const app = new Hono();
  const api = new Hono();
  api.use(async (c, next) => {
    if (c.req.header('authorization') !== `Bearer ${apiKey}`) return c.json({ words: 'unknown business' }, 401);
    await next();
  });
  api.post('/checks', async (c) => {
    const { key, business, about, people } = (await c.req.json()) as Record<string, unknown>;
    const looked = Array.isArray(people) ? people.map(lookedAt) : [];
    if (!key || looked.length === 0 || looked.includes(null)) return c.json({ words: 'not whole' }, 422);
    const whole = looked.filter((one) => one !== null);
    return c.json(
      told(checks.begin({ key: text(key, 200), business: text(business), about: text(about, 600), people: whole })),
    );
  });
  api.get('/checks/:key', (c) => {
    const check = checks.find(c.req.param('key'));
    return check ? c.json(told(check)) : c.json({ words: 'no such check' }, 404);
  });
  app.route('/api', api);
  app.get('/', (c) =>
    c.html(
      page(
        'Office of identities',
        html`<h1>Office of identities</h1>
          <p class="soft">
            Decides after a day or two of the clock. A name with “Blur”, “Expired” or “Other” in it is asked anew; with “Double”, “Nobody” or
            “Listed” refused; with “Slow” it takes nine days.
          </p>
          ${checks.list().map(
            (check) => html`<h2>${check.business}</h2><p>${check.about}</p>
              <p>${check.people.map(({ name }) => name).join(', ')}: ${check.state} ${check.reason}</p>
              <form method="post" action="/identity/checks/${encodeURIComponent(check.key)}">
                <select name="state" aria-label="State">${STATES.map((state) => html`<option>${state}</option>`)}</select>
                <input name="reason" maxlength="40" placeholder="Reason, as picture-unclear" aria-label="Reason" />
                <button>Decide now</button>
              </form>`,
          )}`,
      ),
    ),
  );
  app.post('/checks/:key', async (c) => {
    const form = await c.req.parseBody();
    const state = STATES.find((one) => one === form.state);
    if (state) checks.decide(c.req.param('key'), state, text(form.reason, 40));
    return c.redirect('/identity');
  });
  return app;
}
