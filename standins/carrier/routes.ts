import type { HttpBindings } from '@hono/node-server';
import { type Context, Hono } from 'hono';
import { html } from 'hono/html';
import { isCalendarDate } from '../../src/core/dates/calendar-date';
import { isCurrency } from '../../src/core/money/currency';
import { CLAIM_WHYS } from '../../src/core/parcel/claim';
import { page } from '../pages/layout';
import { type AddressAnswer, lookUp } from './addresses';
import type { CarrierBook, Outcome, Wanted } from './book';
import { BY_NAME } from './label';
import { statementCsv } from './statement';
import { type Asked, ratesFor, type Spot } from './tariff';
import { behaviourOf, placesAhead, wayAhead } from './ways';

export type CarrierOptions = {
  readonly apiKey: string;
  /** Least and most milliseconds before something is answered. */
  readonly delay: readonly [number, number];
  /** After how many milliseconds the line breaks where a label's answer gets lost. */
  readonly breaksMs: number;
};

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));
const text = (value: unknown, most = 140): string =>
  String(value ?? '')
    .trim()
    .slice(0, most);
const whole = (value: unknown): number =>
  Number.isSafeInteger(value) && Number(value) >= 0 ? Number(value) : Number.NaN;

function spotOf(given: unknown): Spot {
  const { country, region, postalCode, city, lines } = (given ?? {}) as Record<string, unknown>;
  return {
    country: text(country, 2),
    region: text(region, 6),
    postalCode: text(postalCode, 20),
    city: text(city, 120),
    lines: Array.isArray(lines) ? lines.slice(0, 6).map((line) => text(line, 120)) : [],
  };
}

/** What a parcel says for customs, in sum; null where it says nothing that could be read. */
function customsOf(given: unknown): Asked['customs'] {
  const { lines } = (given ?? {}) as Record<string, unknown>;
  if (!Array.isArray(lines) || lines.length === 0) return null;
  const worths = lines.slice(0, 500).map((line) => whole((line as Record<string, unknown> | null)?.minor));
  return worths.some(Number.isNaN) ? null : { minor: worths.reduce((sum, one) => sum + one, 0), kinds: worths.length };
}

/** A parcel as it was described; null where that cannot be read. */
function askedOf(given: unknown): Asked | null {
  const read = (given ?? {}) as Record<string, unknown>;
  const mailOn = text(read.mailOn, 10);
  const asked = {
    name: text(read.name),
    from: spotOf(read.from),
    to: spotOf(read.to),
    grams: whole(read.grams),
    lengthMm: whole(read.lengthMm),
    widthMm: whole(read.widthMm),
    heightMm: whole(read.heightMm),
    insuredMinor: whole(read.insuredMinor),
    signature: read.signature === true,
    customs: customsOf(read.customs),
  };
  const figures = [asked.grams, asked.lengthMm, asked.widthMm, asked.heightMm, asked.insuredMinor];
  return figures.some(Number.isNaN) || !isCalendarDate(mailOn) ? null : { ...asked, mailOn };
}

/** At most so many parcels are spoken of at once. */
const MOST_AT_ONCE = 200;
const listOf = (given: unknown): unknown[] => (Array.isArray(given) ? given.slice(0, MOST_AT_ONCE) : []);

/** A word in somebody's name by which the carrier answers badly. */
const named = (asked: readonly Asked[], word: string): boolean =>
  asked.some(({ name }) =>
    name
      .toLowerCase()
      .split(/[^\p{L}]+/u)
      .includes(word),
  );

/** The carrier's counter for programs, and a page on which all that was carried is seen. */
export function carrierRoutes(
  book: CarrierBook,
  now: () => number,
  options: CarrierOptions,
): Hono<{ Bindings: HttpBindings }> {
  const app = new Hono<{ Bindings: HttpBindings }>();
  const api = new Hono<{ Bindings: HttpBindings }>();
  const [least, most] = options.delay;

  const told = (outcome: Outcome) =>
    'refused' in outcome
      ? { refused: outcome.refused }
      : {
          number: outcome.label.number,
          service: outcome.label.service,
          serviceName: outcome.label.serviceName,
          rateMinor: outcome.label.rateMinor,
          insuranceMinor: outcome.label.insuranceMinor,
          promisedOn: outcome.label.promisedOn,
          customsForm: outcome.label.customsForm ?? '',
          voided: outcome.voidedAt !== null,
        };

  api.use(async (c, next) => {
    if (c.req.header('authorization') !== `Bearer ${options.apiKey}`) return c.json({ words: 'unknown sender' }, 401);
    if (most > 0) await pause(book.seeded.between(`carrier|${c.req.path}|${now()}`, least, most));
    await next();
  });
  const bodyOf = async (c: Context): Promise<Record<string, unknown>> => {
    const read: unknown = await c.req.json().catch(() => ({}));
    return typeof read === 'object' && read !== null ? (read as Record<string, unknown>) : {};
  };

  api.post('/rates', async (c) => {
    const { currency, parcels } = await bodyOf(c);
    if (!isCurrency(text(currency, 3))) return c.json({ words: 'no such currency' }, 422);
    const asked = listOf(parcels).map(askedOf);
    const known = asked.filter((one) => one !== null);
    if (named(known, 'sluggish')) await pause(2500);
    return c.json({
      answers: asked.map((one) => (one ? ratesFor(one, text(currency, 3)) : { rates: [], refused: [] })),
    });
  });

  api.post('/addresses', async (c) => {
    const { addresses } = await bodyOf(c);
    return c.json({ answers: listOf(addresses).map((one): AddressAnswer => lookUp(spotOf(one))) });
  });

  api.post('/labels', async (c) => {
    const { account, currency, labels } = await bodyOf(c);
    const wanted = listOf(labels).map((one): Wanted | null => {
      const { key, service, parcel } = (one ?? {}) as Record<string, unknown>;
      const asked = askedOf(parcel);
      return key && asked ? { key: text(key, 200), service: text(service, 20), asked } : null;
    });
    if (!account || !isCurrency(text(currency, 3)) || wanted.includes(null)) return c.json({ words: 'not whole' }, 422);
    const whole = wanted.filter((one) => one !== null);
    const known = whole.every(({ key }) => book.outcomeOf(text(account, 60), key));
    const outcomes = book.sell(text(account, 60), text(currency, 3), whole);
    // The label is sold and the answer gets lost, the first time only.
    if (
      !known &&
      named(
        whole.map(({ asked }) => asked),
        'silent',
      )
    ) {
      await pause(options.breaksMs);
      c.env.incoming.socket.destroy();
      return c.body(null);
    }
    return c.json({ outcomes: outcomes.map(told) });
  });

  api.post('/labels/known', async (c) => {
    const { account, keys } = await bodyOf(c);
    return c.json({
      outcomes: listOf(keys).map((key) => {
        const outcome = book.outcomeOf(text(account, 60), text(key, 200));
        return outcome ? told(outcome) : null;
      }),
    });
  });

  api.post('/voids', async (c) => {
    const { account, number } = await bodyOf(c);
    const outcome = book.takeBack(text(account, 60), text(number, 40));
    return outcome ? c.json({ outcome }) : c.json({ words: 'no such label' }, 404);
  });

  api.post('/dates', async (c) => {
    const { account, number, mailOn } = await bodyOf(c);
    const day = text(mailOn, 10);
    const promisedOn = isCalendarDate(day) ? book.redate(text(account, 60), text(number, 40), day) : undefined;
    return promisedOn ? c.json({ promisedOn }) : c.json({ words: 'cannot be dated any more' }, 409);
  });

  api.post('/pick-ups', async (c) => {
    const { account, key, on, parcels } = await bodyOf(c);
    const day = text(on, 10);
    if (!account || !key || !isCalendarDate(day) || !(whole(parcels) > 0)) return c.json({ words: 'not whole' }, 422);
    return c.json(book.pickUp(text(account, 60), text(key, 200), day));
  });

  api.post('/claims', async (c) => {
    const { account, key, number, why, minor } = await bodyOf(c);
    const asked = CLAIM_WHYS.find((one) => one === why);
    if (!account || !key || !asked || !(whole(minor) > 0)) return c.json({ words: 'not whole' }, 422);
    const outcome = book.claim({
      ...{ account: text(account, 60), key: text(key, 200), number: text(number, 40), why: asked, minor: whole(minor) },
    });
    return outcome ? c.json(outcome) : c.json({ words: 'no such label' }, 404);
  });

  api.post('/top-ups', async (c) => {
    const { account, key, currency, minor } = await bodyOf(c);
    if (!account || !key || !isCurrency(text(currency, 3)) || !(whole(minor) > 0))
      return c.json({ words: 'not whole' }, 422);
    return c.json(book.topUp(text(account, 60), text(key, 200), text(currency, 3), whole(minor)));
  });

  api.get('/balance/:account', (c) => c.json(book.balanceOf(c.req.param('account'))));

  // A month's statement as a file, once the month is over.
  api.get('/statements/:account/:month', (c) => {
    const { account, month } = c.req.param();
    if (!/^\d{4}-\d\d$/.test(month) || new Date(now()).toISOString().slice(0, 7) <= month)
      return c.json({ words: 'this month is not over' }, 404);
    return c.json({ file: Buffer.from(statementCsv(book, account, month)).toString('base64') });
  });

  api.post('/scans', async (c) => {
    const { account, numbers } = await bodyOf(c);
    const at = now();
    return c.json({
      parcels: listOf(numbers).map((number) => {
        const kept = book.labelOf(text(number, 40));
        if (kept?.label.account !== text(account, 60)) return null;
        if (kept.voidedAt) return { scans: [], ahead: [], proof: null };
        const { scans, proof } = wayAhead(kept.label, book.seeded);
        const past = scans.filter((scan) => Date.parse(scan.at) <= at);
        return {
          scans: past,
          ahead: placesAhead(kept.label, book.seeded),
          proof: proof && Date.parse(proof.at) <= at ? proof : null,
        };
      }),
    });
  });

  app.route('/api', api);
  app.get('/', (c) =>
    c.html(
      page(
        'Carrier',
        html`<p><a href="/">Stand-ins</a></p>
          <h1>Carrier</h1>
          <p class="soft">
            Nothing is carried: parcels move as the clock moves on, from their mailing date. A recipient’s name with one of these words in it
            goes so: ${BY_NAME.join(', ')}; “unknown” is refused a label, “silent” gets one whose answer is lost, “sluggish” is answered
            late, what goes “heavier” is weighed again and charged for it. “contested” is paid nothing when it is lost or damaged. “Nowhere” is an address that does not exist.
          </p>
          ${book
            .accounts()
            .map(
              (account) =>
                html`<p>Account ${account}: ${(book.balanceOf(account).minor / 100).toFixed(2)} ${book.balanceOf(account).currency}</p>`,
            )}
          <table>
            <tr><th>Number</th><th>For</th><th>Service</th><th>Bought</th><th>Last scan</th><th>Goes</th></tr>
            ${book
              .labels()
              .slice(-200)
              .reverse()
              .map(({ label, voidedAt }) => {
                const last = wayAhead(label, book.seeded)
                  .scans.filter(({ at }) => Date.parse(at) <= now())
                  .at(-1);
                return html`<tr>
                  <td>${label.number}</td>
                  <td>${label.asked.name}, ${label.asked.to.city}</td>
                  <td>${label.serviceName}</td>
                  <td>${label.boughtAt.slice(0, 16).replace('T', ' ')}</td>
                  <td>${voidedAt ? 'given back' : last ? `${last.scan} ${last.place} ${last.at.slice(0, 16).replace('T', ' ')}` : ''}</td>
                  <td>
                    <form method="post" action="/carrier/labels/${label.number}">
                      <select name="goes" aria-label="How it goes">
                        ${['usual', ...BY_NAME].map((goes) => html`<option ${goes === (label.goes ?? behaviourOf(label.asked.name)) ? 'selected' : ''}>${goes}</option>`)}
                      </select>
                      <button>Say so</button>
                    </form>
                  </td>
                </tr>`;
              })}
          </table>`,
      ),
    ),
  );
  app.post('/labels/:number', async (c) => {
    const form = await c.req.parseBody();
    const goes = (['usual', ...BY_NAME] as const).find((one) => one === form.goes);
    if (goes) book.say(c.req.param('number'), goes);
    return c.redirect('/carrier');
  });
  return app;
}
