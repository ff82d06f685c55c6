/** Sends every address of the application what nobody should: seeded, so that what was found is found again. */
import { seeded } from '../seeded';
import { allDoors, type Door } from './doors';
import { type Chance, likelyValue, oneOf, spoilt } from './values';

/** What a run needs of the house that it attacks. */
export type Attacked = {
  /** Where the application answers. */
  readonly web: string;
  /** A session's cookie that is good now; asked again after one was ended. */
  readonly session: () => Promise<string>;
  /** Ids of things that exist, of this business and of others. */
  readonly ids: readonly string[];
  /** Names and tokens of links that open something. */
  readonly links: readonly string[];
};

/** An answer that should not have been: a 5xx, none at all, one without words, or one that took too long. */
export type Found = { readonly what: string; readonly door: string; readonly request: string; readonly answer: string };

const PATIENCE_MS = 30_000;
const BAD_PARAMETERS = [
  '%ff',
  '%00',
  '0000-00-00',
  '..%2f..%2f',
  '%ed%a0%80',
  'x'.repeat(3000),
  '%20',
  'null',
  "'",
  '%F0%9D%84%9E',
  '-1',
  '[object Object]',
];

/** What is the same for everybody and may be kept. */
const isForEverybody = ({ address }: Door): boolean => /^\/(b|p|fonts|bare)\/|^\/checkout\.js$/.test(address);

/** Addresses that wait, or that end the session which all others use. */
const isLeftOut = ({ address }: Door): boolean => address === '/api/live';

function pathOf({ address }: Door, { ids, links }: Attacked, chance: Chance): string {
  return address.replace(/\[(\w+)\]/g, (_, name: string) => {
    if (chance() < 0.15) return oneOf(chance, BAD_PARAMETERS);
    if (name === 'id') return oneOf(chance, ids);
    if (name === 'day') return oneOf(chance, ['2026-11-20', '2026-02-30', '0000-00-00', '9999-12-31']);
    return chance() < 0.8 && links.length > 0 ? oneOf(chance, links) : oneOf(chance, ['x', ...ids]);
  });
}

const asQuery = (value: unknown): string => {
  const pairs = Object.entries((value ?? {}) as object).map(([name, one]) => {
    const text = typeof one === 'string' ? one : (JSON.stringify(one) ?? '');
    return `${encodeURIComponent(name)}=${encodeURIComponent((text.isWellFormed() ? text : '%').slice(0, 3000))}`;
  });
  return pairs.length > 0 ? `?${pairs.join('&')}` : '';
};

/** Bodies that are no JSON, no text, or more than is taken. */
const RAW: readonly ((json: string) => string | Buffer)[] = [
  (json) => json.slice(0, json.length / 2),
  () => Buffer.from([0xff, 0xfe, 0x00, 0x22]),
  () => '[]',
  () => 'null',
  () => '"x"',
  () => '',
  (json) => `\ufeff${json}`,
  () => `{"a":${'['.repeat(30_000)}${']'.repeat(30_000)}}`,
  () => `{${Array.from({ length: 60_000 }, (_, at) => `"k${at}":1`).join(',')}}`,
  () => 'x'.repeat(200_000),
  () => '{"a":1e999999}',
  () => '{"\\u0000":"\\ud800"}',
];

const ASKED = [
  'words',
  'state',
  'from',
  'to',
  'notCarried',
  'month',
  'as',
  'sheet',
  'part',
  'key',
  'id',
  'lang',
  'currency',
  'request',
  'framed',
  'year',
  'group',
  'sort',
  'plan',
  'customer',
  'of',
  'least',
  'descending',
  'amount',
  'email',
  'quote',
];
const SAID = [
  '',
  'yes',
  'x',
  '%C3%A9',
  '0000-00-00',
  '2026-02-30',
  '9999-12-31',
  '0001-01-01',
  '2026-13',
  '2026-12',
  '%25%5F%5C',
  '%27',
  '-1',
  '1e99',
  'ZZZ',
  'USD',
  'all',
  'drafts',
  '[object%20Object]',
  'constructor',
  '__proto__',
  '%EF%BF%BF',
  'x.y.z',
];

/** What a page's address might ask, some of it twice. */
function pageQuery(ids: readonly string[], chance: Chance): string {
  const pairs = Array.from({ length: Math.floor(chance() * 5) }, () => {
    const said = chance() < 0.2 ? oneOf(chance, ids) : oneOf(chance, SAID);
    return `${oneOf(chance, ASKED)}=${said}`;
  });
  return pairs.length > 0 ? `?${pairs.join('&')}${chance() < 0.2 ? `&${pairs[0]}` : ''}` : '';
}

type Sent = {
  readonly url: string;
  readonly init: RequestInit & { headers: Record<string, string> };
  readonly shown: string;
};

function requestFor(door: Door, attacked: Attacked, cookie: string, chance: Chance): Sent {
  const { shape, from, method } = door;
  const valid = shape ? likelyValue(shape, attacked.ids, chance) : {};
  const value = chance() < 0.25 ? valid : spoilt(valid, attacked.ids, chance);
  const own = new URL(attacked.web).origin;
  const headers: Record<string, string> = { origin: own, cookie };
  if (chance() < 0.05)
    headers.cookie = oneOf(chance, [
      '',
      'dahlia_session=%ff',
      'dahlia_session=x.y',
      `dahlia_session=${'a'.repeat(3000)}`,
    ]);
  if (chance() < 0.05) headers['accept-language'] = oneOf(chance, ['*', 'xx-'.repeat(500), 'ÿ', 'de;q=x']);
  let url = attacked.web + pathOf(door, attacked, chance);
  let body: string | Buffer | undefined;
  if (from === 'address') url += shape ? asQuery(value) : pageQuery(attacked.ids, chance);
  if (method !== 'GET' && from === 'body') {
    const json = JSON.stringify(value) ?? 'null';
    body = chance() < 0.12 ? oneOf(chance, RAW)(json) : json;
    headers['content-type'] = 'application/json';
  } else if (method !== 'GET') {
    body = oneOf(chance, [
      Buffer.from('%PDF-1.4\nbroken'),
      Buffer.from([0x89, 0x50, 0x4e, 0x47]),
      '<Invoice/>',
      'BEGIN:VCALENDAR\nEND',
      'a,b\n1,2\n',
      '',
      'PK\u0003\u0004',
    ]);
  }
  const shown = `${method} ${url.slice(attacked.web.length, attacked.web.length + 300)} ${String(body ?? '').slice(0, 600)}`;
  return {
    url,
    init: { method, headers, redirect: 'manual', ...(body === undefined ? {} : { body: body as BodyInit }) },
    shown,
  };
}

async function troubleOf(door: Door, { url, init, shown }: Sent): Promise<Found | null> {
  const found = (what: string, answer: string): Found => ({
    what,
    door: `${door.method} ${door.address}`,
    request: shown,
    answer: answer.slice(0, 300),
  });
  try {
    const answer = await fetch(url, { ...init, signal: AbortSignal.timeout(PATIENCE_MS) });
    const text = await answer.text();
    // Health may say that a part does not answer; it says so with 503.
    if (answer.status >= 500 && door.address !== '/api/health') return found(String(answer.status), text);
    if (!isForEverybody(door) && !/no-store/.test(answer.headers.get('cache-control') ?? ''))
      return found('may be kept by others', text);
    if (answer.status >= 400 && door.address.startsWith('/api/') && !door.address.startsWith('/api/hooks/')) {
      const { words } = JSON.parse(text) as { words?: string };
      if (!words) return found('no words', text);
    }
    return null;
  } catch (error) {
    return found(
      'no answer',
      error instanceof Error ? `${error.name} ${error.message} ${String(error.cause ?? '')}` : '',
    );
  }
}

/**
 * So many requests to every address with every method, eight side by side.
 *
 * @param each requests to each door
 * @returns how many were sent, and what should not have been
 */
export async function fuzz(
  attacked: Attacked,
  each: number,
  seed: number,
): Promise<{ sent: number; doors: number; found: Found[] }> {
  const doors = (await allDoors()).filter((door) => !isLeftOut(door));
  const found: Found[] = [];
  let cookie = await attacked.session();
  let sent = 0;
  const waiting = doors.flatMap((door) => Array.from({ length: each }, () => door));
  const lane = async (): Promise<void> => {
    for (let door = waiting.pop(); door; door = waiting.pop()) {
      if (door.address === '/api/sign-out') cookie = await attacked.session();
      const trouble = await troubleOf(door, requestFor(door, attacked, cookie, seeded(seed * 1_000_003 + sent++)));
      if (door.address === '/api/sign-out') cookie = await attacked.session();
      if (trouble) found.push(trouble);
    }
  };
  await Promise.all(Array.from({ length: 8 }, lane));
  return { sent, doors: doors.length, found };
}
