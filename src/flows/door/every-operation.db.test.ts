import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { sendBy } from '@/core/invoice/send-with';
import { HIDDEN, mayDo, ROLES } from '@/core/person/rights';
import { storeFile } from '@/flows/file/store-file';
import { checkBulk } from '@/flows/invoice/bulk-invoices';
import { askQuestion } from '@/flows/invoice/consent';
import { startRecurring } from '@/flows/invoice/recurring';
import { asSuperuser } from '../../../tests/support/database';
import { paidOrder, placedOffer } from '../../../tests/support/offers';
import { planTerms, runningPlan } from '../../../tests/support/plans';
import {
  cardToken,
  foundHouse,
  type House,
  keptDraft,
  openWorkshop,
  sentInvoice,
  type Workshop,
} from '../../../tests/support/workshop';
import { takePayment } from '../payment/take-payment';
import { type Needs, needsOf } from './operation';

/** Everything that stands under the flows: an operation cannot be left out of what is walked here. */
const modules = import.meta.glob<Record<string, unknown>>(['../**/*.ts', '!../**/*.test.ts'], { eager: true });

type Listed = { readonly name: string; readonly needs: Needs; readonly call: (...args: unknown[]) => Promise<unknown> };
const operations: Listed[] = Object.entries(modules).flatMap(([path, exported]) =>
  Object.entries(exported).flatMap(([name, value]) => {
    const needs = needsOf(value);
    return needs
      ? [{ name: `${path.replace(/^\.\.\/|\.ts$/g, '')} ${name}`, needs, call: value as Listed['call'] }]
      : [];
  }),
);
const entered = <By extends Needs['entry']['by']>(by: By) =>
  operations.filter(
    (one): one is Listed & { readonly needs: { readonly entry: Extract<Needs['entry'], { by: By }> } } =>
      one.needs.entry.by === by,
  );

let workshop: Workshop;
let mine: House;
let theirs: House;
/** One row's id of each kind of theirs. */
let ids: string[];
const tokens: Record<string, string> = {};
const MARK = 'Quillfeather';

beforeAll(async () => {
  workshop = await openWorkshop();
  mine = await foundHouse('Mine');
  theirs = await foundHouse(`${MARK} and Sons`);
  const sent = await sentInvoice(theirs);
  const token = await cardToken(workshop.standIns, 'corvid-good');
  await takePayment(sent.link, { attemptKey: crypto.randomUUID(), cardToken: token, amountMinor: 11_000n }, 'a');
  await askQuestion(sent.link, { text: `${MARK} asks`, byName: '' }, 'a');
  const draft = await keptDraft(theirs);
  await startRecurring(theirs.owner, draft, {
    name: MARK,
    makes: 'draft',
    schedule: { unit: 'year', every: 1, start: '2040-01-01' as never, ends: 'never' },
  });
  await checkBulk(theirs.owner, draft, MARK, { customerIds: [theirs.customerId], group: '', rows: [] }, sendBy('mail'));
  await storeFile(theirs.owner, `${MARK}.csv`, 'attachment', Buffer.from('What,Sum\nWax,1\n'));
  const offer = await placedOffer(theirs, { title: MARK, prices: { USD: '40' } });
  await paidOrder(workshop, offer.called);
  await runningPlan(theirs, workshop.standIns, planTerms(theirs, '2040-01-01', { name: MARK }), undefined, MARK);
  ids = [];
  for (const { name } of await tables()) {
    const [row] = await asSuperuser<Record<string, string>>(
      workshop.admin,
      `select * from ${name} where business_id = $1 limit 1`,
      [theirs.business.id],
    );
    if (row?.id && name !== 'people') ids.push(row.id);
    if (name === 'orders') tokens.order = row?.token ?? '';
    if (name === 'plans') tokens.plan = row?.link_token ?? '';
    if (name === 'offers') tokens.offer = row?.public_id ?? '';
  }
  tokens.invoice = sent.link;
});
afterAll(() => workshop.close());

const tables = () =>
  asSuperuser<{ name: string }>(
    workshop.admin,
    `select table_name as name from information_schema.columns where table_schema = 'public' and column_name = 'business_id' order by 1`,
  );

/** All that is written down of theirs, as one sign for each table. */
async function fingerprint(house = theirs): Promise<unknown> {
  const each = (await tables()).map(
    ({ name }) =>
      `select '${name}' as name, md5(string_agg(one::text, ' ' order by one::text)) as rows from ${name} one where business_id = $1`,
  );
  return asSuperuser(workshop.admin, each.join(' union all '), [house.business.id]);
}

/** A line to the screens takes what is to be called: anything else would be called with the next change. */
const HEARS = 'house/changes hearChanges';

const nothing = Array.from({ length: 4 }, () => () => undefined);
const codeOf = (error: unknown): string => (error as { code?: string }).code ?? 'other';
const refusalOf = (answered: Promise<unknown>): Promise<string> => answered.then(() => 'none', codeOf);

test('there are operations of every kind, and whoever needs no right and no link is known by name', () => {
  expect(operations.length).toBeGreaterThan(200);
  expect(new Set(operations.map(({ needs }) => needs.entry.by)).size).toBe(5);
  expect(
    entered('anybody')
      .map(({ name }) => name.split(' ')[1])
      .sort(),
  ).toEqual([
    'acceptInvitation',
    'actorOf',
    'agreeToAddress',
    'askForPassword',
    'askLostSteps',
    'beginLost',
    'beginning',
    'changeDesk',
    'chooseForgotten',
    'confirmByLink',
    'demoOffer',
    'forgottenWork',
    'foundAnother',
    'framingSites',
    'health',
    'hearCardEvent',
    'hearMailEvent',
    'isSignedIn',
    'lookAtAddressLink',
    'lookAtConfirmLink',
    'lookAtInvitation',
    'lookAtLostLink',
    'lookAtPasswordLink',
    'measures',
    'noticed',
    'passkeyAsked',
    'programOf',
    'settingGuess',
    'signIn',
    'signInByPasskey',
    'signInWork',
    'signUp',
    'signUpWork',
    'spendRequest',
    'spendWrongKey',
    'stepPasskey',
    'takeSecondStep',
    'viewByLink',
  ]);
});

/** Everybody there can be: each role, and who only looks on with something hidden. */
const HIDING = HIDDEN.map((one) => [`reader, ${one}`, 'reader', [one]] as const);
const EVERYBODY = [
  ...ROLES.map((role) => [role, role, []] as const),
  ...HIDING,
  ['reader, both', 'reader', HIDDEN] as const,
];

describe.each(EVERYBODY)('as %s', (_called, role, extra) => {
  test('nothing without its right is done, and nothing is refused for want of one that is there', async () => {
    const actor = { ...mine[role], extra };
    for (const { name, needs, call } of entered('desk')) {
      const refused = await refusalOf(call(actor, ...nothing));
      if (mayDo(actor, needs.entry.right)) expect(refused, name).not.toBe('not-allowed');
      else expect(refused, name).toBe('not-allowed');
    }
  });
});

/** Where in an answer something of this kind stands. */
function placesOf(value: unknown, isIt: (key: string, value: unknown) => boolean, path = ''): string[] {
  if (isIt(path.split('.').at(-1) ?? '', value)) return [path];
  if (typeof value !== 'object' || value === null || value instanceof Date) return [];
  const entries = value instanceof Map ? [...value] : Object.entries(value);
  return entries.flatMap(([key, one]) => placesOf(one, isIt, `${path}.${String(key)}`));
}

const isSum = (key: string, value: unknown): boolean =>
  typeof value === 'bigint' ||
  (/(Minor|total|prices?|cost|balance|amount)$/i.test(key) && value !== null && value !== '');
// Whole words, as they are written: among the letters of a secret any four stand some day.
const CUSTOMERS = /\b(Perpetua Vane|Weir Street|Ida Marsh|Kiln Road|Quillfeather asks)\b|@(vane|marsh|reed)\.example/;
const isCustomer = (_key: string, value: unknown): boolean => typeof value === 'string' && CUSTOMERS.test(value);

test.each([
  ['a packer', 'packer', [], isSum],
  ['a reader without sums', 'reader', ['no-sums'], isSum],
  ['a reader without customers', 'reader', ['no-customers'], isCustomer],
] as const)('whatever %s asks, nothing of what is hidden stands in an answer', async (_called, role, extra, isIt) => {
  const actor = { ...theirs[role], extra };
  let answered = 0;
  for (const { name, needs, call } of entered('desk')) {
    // What ends one's own way in would end the test.
    if (name === HEARS) continue;
    if (!mayDo(actor, needs.entry.right) || needs.transactions === 'write' || needs.transactions === 'turn') continue;
    for (const given of [[], ['Perpetua'], [''], [{ words: '', group: '' }], ...ids.map((id) => [id])]) {
      const answer = await call(actor, ...given).catch(() => null);
      if (answer === null || answer === undefined) continue;
      answered++;
      expect(placesOf(answer, isIt), name).toEqual([]);
    }
  }
  expect(answered).toBeGreaterThan(15);
  // Whoever sees it is shown it: what is looked for can be found.
  const known = isIt === isSum ? 'payment/payment-overview takings' : 'records/contacts contactsPage';
  const open = operations.find(({ name }) => name === known);
  expect(placesOf(await open?.call(theirs.owner, ''), isIt)).not.toEqual([]);
});

test('in a business that is closed nothing more is written at the desk, and everything can be looked at', async () => {
  const closed = { ...mine.owner, closed: true };
  const before = await fingerprint(mine);
  const open: string[] = [];
  let refused = 0;
  for (const { name, needs, call } of entered('desk')) {
    const { bare, whenClosed } = needs.entry;
    if (whenClosed) open.push(name.split(' ')[1] ?? '');
    if (bare || whenClosed) continue;
    const code = await refusalOf(call(closed, ...nothing));
    if (needs.transactions === 'write' || needs.transactions === 'turn') expect(code, name).toBe('business-closed');
    if (needs.transactions === 'read') expect(code, name).not.toBe('business-closed');
    if (code === 'business-closed') refused++;
  }
  // What is taken along is noted, and how somebody reads is theirs; nothing else.
  expect(await fingerprint(mine)).toEqual(
    expect.arrayContaining(
      (before as { name: string }[]).filter((table) => !JSON.stringify(table).includes('log_entries')),
    ),
  );
  expect(refused).toBeGreaterThan(80);
  expect(open.sort()).toEqual(['customerArchive', 'haveSeenNews', 'keepWriting', 'reopenBusiness', 'takeAlong']);
});

test('who has yet to set up the second step that is asked of them does nothing else, and what cannot be taken back asks again', async () => {
  const bare = { ...mine.owner, lacksStep: true };
  const stale = { ...mine.owner, provedSeconds: 301 };
  const asking: string[] = [];
  for (const { name, needs, call } of entered('desk')) {
    const { bare: isOpen, again } = needs.entry;
    if (!isOpen) expect(await refusalOf(call(bare, ...nothing)), name).toBe('step-first');
    if (again) expect(await refusalOf(call(stale, ...nothing)), name).toBe('prove-again');
    if (again) asking.push(name.split(' ')[1] ?? '');
  }
  expect(asking.sort()).toEqual([
    'addApp',
    'addHook',
    'askNewAddress',
    'changeHook',
    'changeSecret',
    'closeBusiness',
    'confirmAccount',
    'dropPasskey',
    'endKey',
    'eraseCustomer',
    'giveAccount',
    'invite',
    'keepAccessRules',
    'keepPasskey',
    'leaveAccount',
    'makeKey',
    'makeTransferFile',
    'mayTakeAlong',
    'newApp',
    'newPasskey',
    'newRecoveryCodes',
    'removeApp',
    'removeHook',
    'removePerson',
    'reopenBusiness',
    'sendIdentity',
    'setRights',
    'takeAlong',
  ]);
  expect(
    entered('desk')
      .filter(({ needs }) => needs.entry.bare)
      .map(({ name }) => name.split(' ')[1])
      .sort(),
  ).toEqual([
    'addApp',
    'keepPasskey',
    'keepSteps',
    'mySteps',
    'newApp',
    'newPasskey',
    'prove',
    'provePasskey',
    'proveWays',
    'signOut',
  ]);
});

test('a reader charges nobody: everything that takes money is refused', async () => {
  for (const { name, needs, call } of entered('desk'))
    if (['ask', 'take', 'give-back', 'records', 'settings', 'people'].includes(needs.entry.right))
      expect(await refusalOf(call(mine.reader, ids[0])), name).toBe('not-allowed');
});

test('with the ids of another business nobody finds, charges or changes anything of it', async () => {
  const before = await fingerprint();
  const enter = [
    ...entered('desk')
      .filter(({ name }) => name !== HEARS)
      .map((one) => ({ ...one, head: mine.owner as unknown })),
    ...entered('worker').map((one) => ({ ...one, head: mine.business.id as unknown })),
  ];
  for (const { name, head, call } of enter) {
    const answers = await Promise.allSettled(
      ids.flatMap((id) => [call(head, id), call(head, id, id, id, id), call(head, [id], id), call(head, null, id, id)]),
    );
    for (const answer of answers)
      if (answer.status === 'fulfilled')
        expect(
          JSON.stringify(answer.value ?? null, (_, value) => (typeof value === 'bigint' ? String(value) : value)),
          name,
        ).not.toContain(MARK);
    expect(await fingerprint(), name).toEqual(before);
  }
});

test('a link opens what it was made for and nothing else', async () => {
  const before = await fingerprint();
  for (const { name, needs, call } of entered('link')) {
    // Whose a link is may be asked with any of them.
    const strange = Object.entries(tokens).flatMap(([kind, token]) =>
      [kind, 'any', 'what is kept'].includes(needs.entry.link) ? [] : [token],
    );
    for (const token of [...strange, ...ids, 'nonsense', ''])
      expect(
        await call(token, ids[0], ids[0], ids[0]).then(
          (value) => (value === null ? 'not-found' : 'opened'),
          (error) => codeOf(error),
        ),
        `${name} ${token}`,
      ).toBe('not-found');
  }
  expect(await fingerprint()).toEqual(before);
});

/** What the screens, the handlers and the jobs take from the flows while they run, by file. */
function takenOutside(): { file: string; path: string; name: string }[] {
  const files = ['src/app', 'src/jobs', 'src/ui'].flatMap((folder) =>
    readdirSync(folder, { recursive: true, encoding: 'utf8' })
      .filter((file) => /\.tsx?$/.test(file) && !/\.test\./.test(file))
      .map((file) => join(folder, file)),
  );
  return files.flatMap((file) =>
    [...readFileSync(file, 'utf8').matchAll(/import (type )?\{([^}]*)\} from '@\/flows\/([^']+)'/g)].flatMap(
      ([, typed, names = '', path = '']) =>
        typed
          ? []
          : names
              .split(',')
              .map((name) => name.trim().replace(/ as .*/, ''))
              .filter((name) => name && !name.startsWith('type '))
              .map((name) => ({ file, path, name })),
    ),
  );
}

/** Addresses and words about what was read already; `hostedPage` keeps what its own operation made. */
const NO_ROWS = [
  'idFor',
  'approverOf',
  'Refusal',
  'cardFieldsUrl',
  'hearingSince',
  'hostedPage',
  'mayDo',
  'offerLink',
  'partAskedNow',
  'payableNow',
  'printedOf',
  'regionsOf',
];

test('screens, handlers and jobs enter by operations only', () => {
  const taken = takenOutside();
  expect(taken.length).toBeGreaterThan(100);
  const others = taken.filter(({ path, name }) => {
    const value = modules[`../${path}.ts`]?.[name];
    return typeof value === 'function' && !needsOf(value) && !NO_ROWS.includes(name);
  });
  expect(others).toEqual([]);
});

/** The machine's own clock: how long a proof of work holds by the package that checks it, and what a process heard when. */
const MACHINE = ['house/changes.ts', 'house/health.ts'];

test('only the door reads the clock', () => {
  const readers = readdirSync('src/flows', { recursive: true, encoding: 'utf8' }).filter(
    (file) =>
      /\.ts$/.test(file) &&
      !/\.test\.ts$/.test(file) &&
      !file.startsWith('door') &&
      !MACHINE.includes(file) &&
      /Date\.now\(|new Date\(\)|clock\.now\(/.test(readFileSync(join('src/flows', file), 'utf8')),
  );
  expect(readers).toEqual([]);
});
