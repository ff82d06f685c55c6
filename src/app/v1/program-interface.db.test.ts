/** What other programs can do, driven from its own description: every path, valid and invalid; keys, pages, limits and what is sent twice. */
import { randomUUID } from 'node:crypto';
import Ajv from 'ajv/dist/2020';
import formats from 'ajv-formats';
import { NextRequest } from 'next/server';
import { beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import { KEY_RIGHTS, type KeyRight } from '@/core/program/key';
import { insertCustomers } from '@/db/customers';
import { ledgerTroubles } from '@/db/ledger';
import { inBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { removePerson } from '@/flows/house/people';
import { eraseCustomer } from '@/flows/keeping/customer-data';
import { logPage } from '@/flows/log/log';
import { takePayment } from '@/flows/payment/take-payment';
import { endKey, keysView, makeKey } from '@/flows/program/keys';
import { asSuperuser } from '../../../tests/support/database';
import { buyAll, livesAt, packAll, postedItem, readyToPack, soldToPost } from '../../../tests/support/parcels';
import { planTerms, runningPlan } from '../../../tests/support/plans';
import { cardToken, foundHouse, type House, sentInvoice, sharedWorkshop } from '../../../tests/support/workshop';
import { programAnswer } from './answer';
import { openApi } from './openapi';

const workshop = await sharedWorkshop();
let house: House;
let key: string;
beforeAll(async () => {
  house = await foundHouse();
  ({ key } = await makeKey(house.owner, { name: 'Shop', rights: KEY_RIGHTS, days: 30 }));
});

// Each test begins with all that a key and an address may ask.
beforeEach(() => asSuperuser(workshop.admin, 'delete from attempt_limits', []));

type Operation = {
  readonly operationId: string;
  readonly parameters: readonly { name: string; in: string; required: boolean; schema: object }[];
  readonly requestBody?: { content: { 'application/json': { schema: { $ref: string } } } };
  readonly responses: Record<string, { content: Record<string, { schema: object }> }>;
  readonly security: readonly { key: readonly KeyRight[] }[];
};
type Description = {
  readonly paths: Record<string, Record<string, Operation>>;
  readonly components: { readonly schemas: Record<string, Schema> };
};
type Schema = { properties?: Record<string, Schema>; required?: readonly string[]; type?: string; $ref?: string };

const description = openApi('http://localhost') as Description;
const operations = Object.entries(description.paths).flatMap(([path, methods]) =>
  Object.entries(methods).map(([method, operation]) => ({ path, method: method.toUpperCase(), ...operation })),
);
const ajv = new Ajv({ strict: false, allErrors: true });
formats(ajv);
ajv.addSchema({ ...description, $id: 'openapi' } as object);
const at = (schema: object): object =>
  JSON.parse(JSON.stringify(schema).replaceAll('"#/components/', '"openapi#/components/'));
const problem = ajv.compile({ $ref: 'openapi#/components/schemas/Problem' });

type Answered = { status: number; body: Record<string, unknown>; headers: Headers; type: string };

/** Asks as a program would. */
async function ask(
  method: string,
  path: string,
  body?: unknown,
  { with: by = key, headers = {}, raw }: { with?: string; headers?: Record<string, string>; raw?: string } = {},
): Promise<Answered> {
  const request = new NextRequest(`http://localhost${path}`, {
    method,
    headers: { ...(by ? { authorization: `Bearer ${by}` } : {}), 'content-type': 'application/json', ...headers },
    ...(method === 'GET' ? {} : { body: raw ?? JSON.stringify(body ?? {}) }),
  });
  const answer = await programAnswer(request, request.nextUrl.pathname.replace(/^\/v1/, ''));
  const text = await answer.text();
  return {
    status: answer.status,
    body: text ? JSON.parse(text) : {},
    headers: answer.headers,
    type: answer.headers.get('content-type') ?? '',
  };
}

/** A problem as it is told: its form is the described one, and its type opens. */
async function refusedWith(answer: Answered, status: number, code?: string): Promise<void> {
  expect(answer.status, JSON.stringify(answer.body)).toBe(status);
  expect(answer.type).toBe('application/problem+json');
  expect(problem(answer.body), JSON.stringify(problem.errors)).toBe(true);
  if (code) expect(answer.body.type).toBe(`/v1/problems/${code}`);
  const told = await ask('GET', String(answer.body.type), undefined, { with: '' });
  if (!['trouble', 'not-well-formed'].some((one) => String(answer.body.type).endsWith(one)))
    expect(told, String(answer.body.type)).toMatchObject({ status: 200, body: { type: answer.body.type } });
}

const line = { what: 'Drawer, dovetailed', price: '50.00', quantity: '2' };
const idOf = (answer: Answered): string => String(answer.body.id);
const made = async (path: string, body: object): Promise<string> => {
  const answer = await ask('POST', path, body);
  expect(answer.status, JSON.stringify(answer.body)).toBe(201);
  return idOf(answer);
};
const invoice = () => made('/v1/invoices', { customerId: house.customerId, lines: [line] });
const sentByProgram = async (): Promise<string> => {
  const id = await invoice();
  await ask('POST', `/v1/invoices/${id}/send`, {});
  return id;
};
const paidByCard = async (): Promise<string> => {
  const { link } = await sentInvoice(house);
  const token = await cardToken(workshop.standIns, 'corvid-good');
  await takePayment(link, { attemptKey: randomUUID(), cardToken: token, amountMinor: 11_000n }, 'a');
  const [row] = await asSuperuser<{ id: string }>(
    workshop.admin,
    `select id from payments where business_id = $1 and method = 'card' order by started_at desc, id limit 1`,
    [house.business.id],
  );
  return row?.id ?? '';
};
const plan = () =>
  made('/v1/plans', { customerId: house.customerId, name: 'Care club', lines: [line], start: '2040-01-01' });
const link = () => made('/v1/links', { title: 'Bench day', price: '40.00' });
const running = async () => (await runningPlan(house, workshop.standIns, planTerms(house, '2040-01-01'))).id;
const paused = async () => {
  const id = await running();
  await ask('POST', `/v1/plans/${id}/pause`, {});
  return id;
};

const shipped = async () => {
  await readyToPack(house);
  await soldToPost(house, await livesAt(house, 'Ida Marsh'), await postedItem(house, `Rosin ${randomUUID()}`));
  await packAll(house);
  return (await buyAll(house))[0] ?? '';
};

/** For each operation: of what it is asked, and with what. */
const VALID: Readonly<Record<string, { id?: () => Promise<string>; body?: () => object }>> = {
  'get/v1/customers': {},
  'post/v1/customers': { body: () => ({ name: 'Ångström & Söhne', email: `${randomUUID()}@a.example` }) },
  'get/v1/customers/{id}': { id: async () => house.customerId },
  'patch/v1/customers/{id}': { id: async () => house.customerId, body: () => ({ phone: '555 0100' }) },
  'get/v1/items': {},
  'post/v1/items': { body: () => ({ name: 'Wax', prices: { USD: '4.50' } }) },
  'get/v1/items/{id}': { id: () => made('/v1/items', { name: 'Oil' }) },
  'patch/v1/items/{id}': { id: () => made('/v1/items', { name: 'Glue' }), body: () => ({ cost: '1.10' }) },
  'get/v1/invoices': {},
  'post/v1/invoices': { body: () => ({ customerId: house.customerId, lines: [line], title: 'Kitchen' }) },
  'get/v1/invoices/{id}': { id: invoice },
  'post/v1/invoices/{id}/send': { id: invoice, body: () => ({}) },
  'post/v1/invoices/{id}/cancel': { id: sentByProgram, body: () => ({ reason: 'Twice' }) },
  'post/v1/invoices/{id}/credit': { id: sentByProgram, body: () => ({ amountMinor: 500, reason: 'A dent' }) },
  'post/v1/invoices/{id}/payments': { id: sentByProgram, body: () => ({ amountMinor: 11_000 }) },
  'get/v1/links': {},
  'post/v1/links': { body: () => ({ title: 'Bench day', price: '40.00' }) },
  'get/v1/links/{id}': { id: link },
  'post/v1/links/{id}/state': { id: link, body: () => ({ state: 'paused' }) },
  'get/v1/plans': {},
  'post/v1/plans': {
    body: () => ({ customerId: house.customerId, name: 'Club', lines: [line], start: '2040-01-01', charges: 12 }),
  },
  'get/v1/plans/{id}': { id: plan },
  'post/v1/plans/{id}/send': { id: plan, body: () => ({ way: 'link' }) },
  'post/v1/plans/{id}/pause': { id: running, body: () => ({}) },
  'post/v1/plans/{id}/resume': { id: paused, body: () => ({}) },
  'post/v1/plans/{id}/cancel': { id: running, body: () => ({}) },
  'get/v1/charges': {},
  'get/v1/payments': {},
  'get/v1/payments/{id}': { id: paidByCard },
  'get/v1/payments/{id}/refunds': { id: paidByCard },
  'post/v1/payments/{id}/refunds': { id: paidByCard, body: () => ({ amountMinor: 500, reason: 'Too much' }) },
  'get/v1/shipments': {},
  'get/v1/shipments/{id}': { id: shipped },
};

const nameOf = ({ method, path }: { method: string; path: string }): string => `${method.toLowerCase()}${path}`;
const schemaOf = (operation: (typeof operations)[number]): Schema =>
  description.components.schemas[
    operation.requestBody?.content['application/json'].schema.$ref.replace('#/components/schemas/', '') ?? ''
  ] ?? {};

test('the description is whole: every name it refers to is there, every operation is tried here, every schema can be read', () => {
  expect(operations.map(nameOf).sort()).toEqual(Object.keys(VALID).sort());
  expect(new Set(operations.map(({ operationId }) => operationId)).size).toBe(operations.length);
  for (const [, ref = ''] of JSON.stringify(description).matchAll(/"#\/components\/schemas\/(\w+)"/g))
    expect(description.components.schemas[ref], ref).toBeDefined();
  for (const [name, schema] of Object.entries(description.components.schemas))
    expect(() => ajv.compile(at(schema)), name).not.toThrow();
  expect(description.components.schemas.CustomerWritten?.required).toEqual(['name']);
  expect(description.components.schemas.LineWritten?.required?.toSorted()).toEqual(['price', 'what']);
});

describe.each(operations.map((operation) => ({ name: nameOf(operation), operation })))(
  '$name',
  ({ name, operation }) => {
    const { method, path } = operation;
    const asked = VALID[name] ?? {};

    test('answers what it describes, to what is described', async () => {
      const id = await asked.id?.();
      const body = asked.body?.();
      if (body)
        expect(
          ajv.validate(
            {
              $ref: `openapi#/components/schemas/${operation.requestBody?.content['application/json'].schema.$ref.split('/').at(-1)}`,
            },
            body,
          ),
          JSON.stringify(ajv.errors),
        ).toBe(true);
      const answer = await ask(method, path.replace('{id}', id ?? ''), body);
      const [status = '', said] = Object.entries(operation.responses).find(([one]) => one.startsWith('2')) ?? [];
      expect(String(answer.status), JSON.stringify(answer.body)).toBe(status);
      const isSaid = ajv.compile(at(said?.content['application/json']?.schema ?? {}));
      expect(isSaid(answer.body), JSON.stringify(isSaid.errors)).toBe(true);
      expect(Number(answer.headers.get('ratelimit-remaining'))).toBeLessThan(240);
      expect(answer.headers.get('cache-control')).toContain('no-store');
    });

    test('refuses whoever has no key, another’s, or one without the right; and what is not there, or another’s', async () => {
      const here = path.replace('{id}', randomUUID());
      await refusedWith(await ask(method, here, {}, { with: '' }), 401, 'no-key');
      await refusedWith(await ask(method, here, {}, { with: `${key.slice(0, -1)}?` }), 401, 'key-not-good');
      const [right = 'see'] = operation.security[0]?.key ?? [];
      const rights = KEY_RIGHTS.filter((one) => one !== right);
      const { key: other } = await makeKey(house.owner, { name: `Without ${right}`, rights, days: 1 });
      await refusedWith(await ask(method, here, {}, { with: other }), 403, 'not-allowed');
      // What is done is shown: without the right to look, nothing is done.
      const { key: blind } = await makeKey(house.owner, {
        name: 'Blind',
        rights: [right].filter((one) => one !== 'see') as never,
        days: 1,
      });
      await refusedWith(await ask(method, here, {}, { with: blind }), 403, 'not-allowed');
      const blinds = (await keysView(house.owner)).filter((one) => one.name === 'Blind');
      for (const one of blinds) await endKey(house.owner, one.id);
      const [{ id = '' } = {}] = (await keysView(house.owner)).filter((one) => one.name === `Without ${right}`);
      await endKey(house.owner, id);
      await refusedWith(await ask(method, here, {}, { with: other }), 401, 'key-not-good');
      if (!path.includes('{id}')) return;
      const body = asked.body?.() ?? {};
      await refusedWith(await ask(method, here, body), 404, 'not-found');
      await refusedWith(await ask(method, path.replace('{id}', 'nonsense'), body), 404, 'not-there');
      const neighbour = await foundHouse('Neighbour');
      const { key: theirs } = await makeKey(neighbour.owner, { name: 'Theirs', rights: KEY_RIGHTS, days: 1 });
      const id2 = (await asked.id?.()) ?? '';
      await refusedWith(await ask(method, path.replace('{id}', id2), body, { with: theirs }), 404, 'not-found');
    });

    test('refuses what is not as described, at its place', async () => {
      const id = await asked.id?.();
      const here = path.replace('{id}', id ?? '');
      if (method === 'GET') {
        if (!operation.parameters.some((one) => one.name === 'after')) return;
        await refusedWith(await ask('GET', `${here}?after=nonsense`), 400, 'not-well-formed');
        for (const key of [
          'no day',
          '2026-02-31',
          '0000-00-00',
          '2026-99-99T99:99:99.9Z',
          '2026-02-28T25:00:00Z',
          '\u0000',
        ]) {
          const forged = Buffer.from(JSON.stringify([key, randomUUID()])).toString('base64url');
          expect([200, 400, 404], key).toContain((await ask('GET', `${here}?after=${forged}`)).status);
        }
        await refusedWith(await ask('GET', `${here}?strange=1`), 400, 'not-well-formed');
        return;
      }
      const body = asked.body?.() ?? {};
      await refusedWith(await ask(method, here, undefined, { raw: '{"name": ' }), 400, 'not-well-formed');
      for (const raw of ['[1]', 'null', '"text"', '7'])
        await refusedWith(await ask(method, here, undefined, { raw }), 400, 'not-well-formed');
      await refusedWith(await ask(method, here, { ...body, strange: true }), 400, 'not-well-formed');
      const schema = schemaOf(operation);
      for (const field of schema.required ?? []) {
        const { [field]: _, ...rest } = body as Record<string, unknown>;
        const answer = await ask(method, here, rest);
        await refusedWith(answer, 400, 'not-well-formed');
        expect(JSON.stringify(answer.body.errors), field).toContain(`"field":"${field}"`);
      }
      for (const field of Object.keys(schema.properties ?? {})) {
        const answer = await ask(method, here, { ...body, [field]: { strange: 1 } });
        await refusedWith(answer, 400, 'not-well-formed');
        expect(JSON.stringify(answer.body.errors), field).toContain(`"field":"${field}`);
      }
      const wrong = method === 'POST' ? 'PATCH' : 'POST';
      await refusedWith(await ask(wrong === 'PATCH' ? 'DELETE' : 'DELETE', here, body), 405, 'no-such-method');
    });
  },
);

test('a change that names no count takes none away that was sold while it was under way', async () => {
  const item = await postedItem(house, 'Last strings', { onHand: '5' });
  const onHand = async () => (await ask('GET', `/v1/items/${item.id}`)).body.onHand;
  const sold = () => soldToPost(house, { id: house.customerId }, item);
  const changed = (cost: string) => ask('PATCH', `/v1/items/${item.id}`, { cost });
  const sales = async () => {
    await sold();
    await sold();
  };
  await Promise.all([sales(), ...['1.10', '1.20', '1.30', '1.40'].map(changed)]);
  expect(await onHand()).toBe('3');
  await ask('PATCH', `/v1/items/${item.id}`, { onHand: '9' });
  expect(await onHand()).toBe('9');
});

describe('sent twice', () => {
  const under = (requestKey: string) => ({ headers: { 'idempotency-key': requestKey } });

  test('it is done once and answered the same; another question under the same key is refused, and a no can be tried again', async () => {
    const email = `${randomUUID()}@twice.example`;
    const requestKey = randomUUID();
    const first = await ask('POST', '/v1/customers', { name: 'Once', email }, under(requestKey));
    const again = await ask('POST', '/v1/customers', { name: 'Once', email }, under(requestKey));
    expect(again).toMatchObject({ status: 201, body: first.body });
    await refusedWith(
      await ask('POST', '/v1/customers', { name: 'Twice', email }, under(requestKey)),
      422,
      'other-request',
    );
    await refusedWith(await ask('POST', '/v1/items', { name: 'Once' }, under(requestKey)), 422, 'other-request');
    await refusedWith(
      await ask('POST', '/v1/customers', { name: 'x' }, under('with space ü')),
      400,
      'request-key',
    ).catch((error) => {
      // Such a header cannot be made at all.
      if (!(error instanceof TypeError)) throw error;
    });
    const id = await sentByProgram();
    const much = { amountMinor: 99_000_000 };
    const money = randomUUID();
    await refusedWith(await ask('POST', `/v1/invoices/${id}/payments`, much, under(money)), 409, 'payment-too-large');
    const right = await ask('POST', `/v1/invoices/${id}/payments`, { amountMinor: 5000 }, under(money));
    expect(right).toMatchObject({ status: 200, body: { paidMinor: 5000 } });
    await ask('POST', `/v1/invoices/${id}/payments`, { amountMinor: 5000 }, under(money));
    expect((await ask('GET', `/v1/invoices/${id}`)).body).toMatchObject({ paidMinor: 5000 });
    const [{ count = 0 } = {}] = await asSuperuser<{ count: number }>(
      workshop.admin,
      'select count(*)::int as count from customers where email = $1',
      [email],
    );
    expect(count).toBe(1);
  });

  test('at once: one does it, the others hear the same or that it is under way; nothing is there twice', async () => {
    for (let round = 0; round < 3; round++) {
      const name = `Race ${randomUUID()}`;
      const requestKey = randomUUID();
      const answers = await Promise.all(
        Array.from({ length: 6 }, () => ask('POST', '/v1/customers', { name }, under(requestKey))),
      );
      for (const { status } of answers) expect([201, 409]).toContain(status);
      const ids = new Set(answers.filter(({ status }) => status === 201).map(idOf));
      expect(ids.size).toBe(1);
      const found = await asSuperuser(workshop.admin, 'select id from customers where name = $1', [name]);
      expect(found).toHaveLength(1);
    }
  });

  test('broken off in the middle: what makes something new is not done again, what is done once under its key is', async () => {
    const broken = async (requestKey: string) =>
      asSuperuser(workshop.admin, `update program_answers set status = null, body = null where request_key = $1`, [
        requestKey,
      ]);
    const making = randomUUID();
    await ask('POST', '/v1/customers', { name: 'Broken' }, under(making));
    await broken(making);
    await refusedWith(await ask('POST', '/v1/customers', { name: 'Broken' }, under(making)), 409, 'outcome-unknown');
    const paymentId = await paidByCard();
    const refund = { amountMinor: 700, reason: 'Once' };
    const giving = randomUUID();
    await ask('POST', `/v1/payments/${paymentId}/refunds`, refund, under(giving));
    await broken(giving);
    const again = await ask('POST', `/v1/payments/${paymentId}/refunds`, refund, under(giving));
    expect(again).toMatchObject({ status: 200 });
    expect(again.body.data).toHaveLength(1);
    expect(await inBusiness(programContext(house.business.id), ledgerTroubles)).toEqual([]);
  });

  test('whoever is erased is in no answer that is kept', async () => {
    const name = `Quill ${randomUUID()}`;
    const requestKey = randomUUID();
    const id = idOf(await ask('POST', '/v1/customers', { name }, under(requestKey)));
    await eraseCustomer(house.owner, id);
    const kept = await asSuperuser(
      workshop.admin,
      `select 1 from program_answers where body::text like '%' || $1 || '%'`,
      [name],
    );
    expect(kept).toEqual([]);
    expect((await ask('GET', `/v1/customers/${id}`)).body).toMatchObject({ name: 'Erased customer', erased: true });
    const answer = await ask('POST', '/v1/invoices', { customerId: id, lines: [line] });
    await refusedWith(answer, 409, 'paper-not-ready');
  });
});

test('pages go through everything once, in order, however much comes in meanwhile', async () => {
  const many = await foundHouse('Many');
  const { key: by } = await makeKey(many.owner, { name: 'Pages', rights: ['see', 'records'], days: 1 });
  const customers = Array.from({ length: 140 }, (_, index) => ({
    id: randomUUID(),
    ...newCustomer(`Customer ${String(index).padStart(3, '0')}`),
  }));
  await inBusiness(programContext(many.business.id), (tx) => insertCustomers(tx, customers));
  const seen: string[] = [];
  for (let after = ''; ; ) {
    const answer = await ask('GET', `/v1/customers${after ? `?after=${after}` : ''}`, undefined, { with: by });
    expect(answer.status).toBe(200);
    seen.push(...(answer.body.data as { name: string }[]).map(({ name }) => name));
    if (answer.body.next === null) break;
    after = String(answer.body.next);
    await ask('POST', '/v1/customers', { name: `AAA ${randomUUID()}` }, { with: by });
  }
  expect(seen.filter((name) => name.startsWith('Customer'))).toEqual(customers.map(({ name }) => name));
});

test('a key may what it says and no more than who made it; it ends with its day, by hand, and with their time here', async () => {
  const own = await foundHouse('Own');
  const clerk = { ...own.clerk, role: 'clerk' as const };
  await expect(makeKey(clerk, { name: 'No', rights: ['see'], days: 1 })).rejects.toMatchObject({ code: 'not-allowed' });
  await expect(
    makeKey({ ...own.owner, provedSeconds: 301 }, { name: 'No', rights: ['see'], days: 1 }),
  ).rejects.toMatchObject({ code: 'prove-again' });
  const { key: by } = await makeKey(own.owner, { name: 'Till', rights: ['see', 'records'], days: 10 });
  const one = { with: by };
  const { body } = await ask('POST', '/v1/customers', { name: 'By a program' }, one);
  expect(body.name).toBe('By a program');
  expect((await logPage(own.owner, null)).entries[0]).toMatchObject({
    kind: 'keys',
    changes: [{ what: 'Key “Till”' }],
  });
  expect((await keysView(own.owner))[0]).toMatchObject({ name: 'Till', usedAt: expect.any(Date) });
  const stored = await asSuperuser<{ text: string }>(
    workshop.admin,
    'select k::text as text from program_keys k where business_id = $1',
    [own.business.id],
  );
  expect(JSON.stringify(stored)).not.toContain(by);
  // Who made it becomes a reader: the key reads, and writes no more.
  const set = (role: string) =>
    asSuperuser(workshop.admin, 'update people set role = $2 where id = $1', [own.owner.personId, role]);
  await set('reader');
  expect((await ask('GET', '/v1/customers', undefined, one)).status).toBe(200);
  await refusedWith(await ask('POST', '/v1/customers', { name: 'x' }, one), 403, 'not-allowed');
  await set('owner');
  await asSuperuser(
    workshop.admin,
    `update program_keys set good_until = now() - interval '1 second' where business_id = $1`,
    [own.business.id],
  );
  await refusedWith(await ask('GET', '/v1/customers', undefined, one), 401, 'key-not-good');
  await asSuperuser(
    workshop.admin,
    `update program_keys set good_until = now() + interval '1 day' where business_id = $1`,
    [own.business.id],
  );
  // A second owner shows the first one out.
  await asSuperuser(workshop.admin, `update people set role = 'owner' where id = $1`, [own.clerk.personId]);
  await removePerson({ ...own.clerk, role: 'owner' }, own.owner.personId);
  await refusedWith(await ask('GET', '/v1/customers', undefined, one), 401, 'key-not-good');
});

test('a sum that people are asked again for asks for a person; a closed business is read and not written', async () => {
  const own = await foundHouse('Closed');
  const { key: by } = await makeKey(own.owner, { name: 'All', rights: KEY_RIGHTS, days: 1 });
  await asSuperuser(workshop.admin, 'update businesses set asked_above_minor = 100 where business_id = $1', [
    own.business.id,
  ]);
  const { link: paid } = await sentInvoice(own);
  const token = await cardToken(workshop.standIns, 'corvid-good');
  await takePayment(paid, { attemptKey: randomUUID(), cardToken: token, amountMinor: 11_000n }, 'a');
  const { body } = await ask('GET', '/v1/payments', undefined, { with: by });
  const [{ id = '' } = {}] = body.data as { id: string }[];
  const refund = (amountMinor: number) => ask('POST', `/v1/payments/${id}/refunds`, { amountMinor }, { with: by });
  await refusedWith(await refund(101), 403, 'asks-for-a-person');
  expect((await refund(100)).status).toBe(200);
  await asSuperuser(
    workshop.admin,
    `update businesses set closed_at = now(), erase_on = '2040-01-01' where business_id = $1`,
    [own.business.id],
  );
  expect((await ask('GET', '/v1/payments', undefined, { with: by })).status).toBe(200);
  await refusedWith(await ask('POST', '/v1/customers', { name: 'x' }, { with: by }), 409, 'business-closed');
});

test('who asks too often is told how long to wait, and so is who guesses', async () => {
  const { key: by } = await makeKey(house.owner, { name: 'Busy', rights: ['see'], days: 1 });
  const answers: Answered[] = [];
  for (let round = 0; round < 13; round++)
    answers.push(
      ...(await Promise.all(Array.from({ length: 20 }, () => ask('GET', '/v1/nothing', undefined, { with: by })))),
    );
  const refused = answers.filter(({ status }) => status === 429);
  expect(refused).toHaveLength(20);
  for (const answer of refused) {
    await refusedWith(answer, 429, 'too-many-requests');
    expect(Number(answer.headers.get('retry-after'))).toBeGreaterThan(0);
  }
  const guess = () =>
    ask('GET', '/v1/customers', undefined, { with: 'x'.repeat(60), headers: { 'x-forwarded-for': '203.0.113.9' } });
  const guesses = [];
  for (let tries = 0; tries < 32; tries++) guesses.push((await guess()).status);
  expect(guesses.slice(-2)).toEqual([429, 429]);
  expect((await ask('GET', '/v1/customers')).status).toBe(200);
});
