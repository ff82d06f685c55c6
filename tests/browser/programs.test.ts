/** Another program is told: its address given, a secret kept, a test heard, what failed sent again; and on a phone. */
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, expect, test } from 'vitest';
import { ALL_HOOK_KINDS } from '@/core/hook/events';
import { sharedOwnerDesk } from '../support/owner-desk';
import { expectAccessible, openFinder, press, type, untilShown, untilTrue, visit, visitAgain } from '../support/person';
import { until } from '../support/until';
import { sentInvoice } from '../support/workshop';

const { stack, house, page, errors } = await sharedOwnerDesk();

let heard: string[] = [];
let status = 200;
const program = createServer((request, response) => {
  let body = '';
  request.on('data', (part) => {
    body += part;
  });
  request.on('end', () => {
    heard.push(body);
    response.writeHead(status).end();
  });
});
await new Promise<void>((resolve) => program.listen(0, '127.0.0.1', resolve));
const url = `http://127.0.0.1:${(program.address() as AddressInfo).port}/events`;
afterAll(() => {
  program.closeAllConnections();
  program.close();
});

test('a program is told of what happens, by what the desk says of it', async () => {
  await visit(page, `${stack.web}/today`);
  await openFinder(page);
  await page.keyboard.type('webhook');
  await untilShown(page, 'Other programs');
  await page.keyboard.press('Enter');
  await untilTrue(page, () => location.pathname === '/settings/programs');
  await expectAccessible(page, 'other programs');
  await press(page, 'Tell a program', 'button');
  await type(page, 'Its address', 'nonsense');
  await press(page, 'Tell it from now on', 'button');
  await untilShown(page, 'Write an address such as');
  await press(page, 'None of these', 'button');
  await type(page, 'Its address', url);
  await press(page, 'Tell it from now on', 'button');
  await untilShown(page, 'Choose at least one thing');
  await press(page, 'An invoice is sent', 'checkbox');
  await expectAccessible(page, 'a program');
  await press(page, 'Tell it from now on', 'button');
  await untilShown(page, 'Its secret');
  await expectAccessible(page, 'its secret');
  await press(page, 'I have kept it', 'button');
  await untilShown(page, `told of 1 of ${ALL_HOOK_KINDS.length} things`);
  await press(page, 'Send a test', 'button');
  await until('the test is heard', async () => heard.some((body) => body.includes('"kind":"test"')));

  status = 500;
  heard = [];
  await sentInvoice(house);
  await until('the invoice is heard', async () => heard.length > 0);
  await until('what it answered is shown', async () => {
    await visitAgain(page);
    return (await page.evaluate(() => document.body.innerText)).includes('answered 500');
  });
  await expectAccessible(page, 'what a program was told');
  status = 200;
  await press(page, 'Send again', 'button');
  await until('it is heard again', async () => heard.length > 1);
  expect(new Set(heard).size).toBe(1);

  await page.setViewport({ width: 390, height: 844 });
  await press(page, `Change ${url}`, 'button');
  await press(page, 'Switched on', 'checkbox');
  await press(page, 'Save', 'button');
  await untilShown(page, 'switched off');
  await press(page, 'Remove', 'button');
  await press(page, 'Yes, tell it no more', 'button');
  await untilTrue(page, (gone: string) => !document.body.innerText.includes(gone), url);
  expect(errors).toEqual([]);
});

test('a program comes in by a key, over the open way, as far as the key says, until it is ended', async () => {
  await page.setViewport({ width: 1280, height: 800 });
  await visit(page, `${stack.web}/settings/programs`);
  await press(page, 'Make a key', 'button');
  await press(
    page,
    'Read customers, items, invoices, links, plans, charges and payments: all else needs this too',
    'checkbox',
  );
  await press(page, 'Make the key', 'button');
  await untilShown(page, 'Write which program it is for.');
  await untilShown(page, 'Choose at least one thing that it may do.');
  await type(page, 'For which program', 'The shop');
  await type(page, 'Good for how many days', '900');
  await press(
    page,
    'Read customers, items, invoices, links, plans, charges and payments: all else needs this too',
    'checkbox',
  );
  await press(page, 'Change customers and items', 'checkbox');
  await press(page, 'Make the key', 'button');
  await untilShown(page, 'At most 366 days.');
  await expectAccessible(page, 'a new key');
  await type(page, 'Good for how many days', '30');
  await press(page, 'Make the key', 'button');
  await untilShown(page, 'It is shown this once.');
  const key = await page.evaluate(() => document.querySelector('.select-all')?.textContent ?? '');
  await press(page, 'I have kept it', 'button');
  await untilShown(page, 'never used');
  await expectAccessible(page, 'keys');

  // As a program does it: no browser, no origin, no cookie.
  const ask = (method: string, path: string, body?: object) =>
    fetch(`${stack.web}${path}`, {
      method,
      headers: { authorization: `Bearer ${key}`, 'content-type': 'application/json', 'idempotency-key': 'shop-1' },
      ...(body ? { body: JSON.stringify(body) } : {}),
    });
  const made = await ask('POST', '/v1/customers', { name: 'From the shop' });
  expect(made.status).toBe(201);
  const { id } = (await made.json()) as { id: string };
  expect(await (await ask('POST', '/v1/customers', { name: 'From the shop' })).json()).toMatchObject({ id });
  expect((await ask('POST', '/v1/links', { title: 'x', price: '1' })).status).toBe(403);
  const described = (await (await fetch(`${stack.web}/v1/openapi.json`)).json()) as { openapi: string };
  expect(described.openapi).toBe('3.1.0');
  // A page of somebody who is signed in cannot come in this way.
  expect(await page.evaluate(async () => (await fetch('/v1/customers')).status)).toBe(401);
  await visit(page, `${stack.web}/records/customers/${id}`);
  await untilShown(page, 'From the shop');

  await page.setViewport({ width: 390, height: 844 });
  await visit(page, `${stack.web}/settings/programs`);
  await untilShown(page, 'last used');
  await press(page, 'End the key The shop', 'button');
  await press(page, 'Yes, end it', 'button');
  await untilShown(page, 'There is no key yet.');
  expect((await ask('GET', '/v1/customers')).status).toBe(401);
});
