/** Dahlia run for real by bin/serve: both programs, started again when one ends, its figures, how it is; and what is brought in from before. */
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { portFrom } from '../../bin/stack/ports';
import { sharedOwnerDesk } from '../support/owner-desk';
import { expectAccessible, press, untilShown, untilTrue, visit, visitAgain } from '../support/person';
import { until } from '../support/until';

const { stack, page, errors } = await sharedOwnerDesk();

test('bin/serve runs web and worker, starts again what ends by itself, and ends both when it is asked to', async () => {
  const port = await portFrom(6300);
  const web = `http://localhost:${port}`;
  const env = { ...process.env, PUBLIC_URL: web, DAHLIA_INSTANCE: '' };
  const serve = spawn('bash', ['bin/serve', '--port', String(port)], { env, stdio: ['ignore', 'pipe', 'pipe'] });
  const said: string[] = [];
  for (const stream of [serve.stdout, serve.stderr]) stream.on('data', (text) => said.push(String(text)));
  const answers = async () => (await fetch(`${web}/api/health`).catch(() => null))?.status;
  await until('it answers', async () => {
    expect(serve.exitCode, said.join('')).toBeNull();
    return (await answers()) === 200;
  });
  const children = async (): Promise<string[]> => {
    const list = spawn('pgrep', ['-P', String(serve.pid)], { stdio: ['ignore', 'pipe', 'ignore'] });
    let text = '';
    list.stdout.on('data', (part) => {
      text += part;
    });
    await once(list, 'close');
    return text.trim().split('\n').filter(Boolean);
  };
  const before = await children();
  expect(before).toHaveLength(2);
  for (const child of before) process.kill(Number(child), 'SIGKILL');
  await until('both are there anew', async () => {
    const now = await children();
    return now.length === 2 && now.every((child) => !before.includes(child));
  });
  await until('it answers again', async () => (await answers()) === 200);
  expect(said.join('')).toContain('it is started again');
  serve.kill('SIGTERM');
  const [code] = await once(serve, 'exit');
  expect(code, said.join('')).toBe(0);
  expect(await answers()).toBeUndefined();
});

test('figures are for whoever has the key, and people read how it is', async () => {
  const figures = (key: string) => fetch(`${stack.web}/metrics`, { headers: { authorization: `Bearer ${key}` } });
  expect((await figures('')).status).toBe(404);
  expect((await figures('stand-in-metrics-kez')).status).toBe(404);
  await visit(page, `${stack.web}/today`);
  const told = await figures('stand-in-metrics-key');
  expect(told.headers.get('content-type')).toContain('application/openmetrics-text');
  const text = await told.text();
  expect(text).toContain('dahlia_part_well{part="database"} 1');
  expect(text).toMatch(/dahlia_request_seconds_count\{kind="desk",status="2xx"\} [1-9]/);
  expect(text.endsWith('# EOF\n')).toBe(true);
  await page.setViewport({ width: 390, height: 844 });
  await visit(page, `${stack.web}/status`);
  await until('all is well', async () => {
    await visitAgain(page);
    return (await page.evaluate(() => document.body.innerText)).includes('Everything works');
  });
  await expectAccessible(page, 'how it is');
  stack.signal('worker', 'SIGSTOP');
  await until('a worker that stands still is noticed', async () => {
    await visitAgain(page);
    return (await page.evaluate(() => document.body.innerText)).includes('go out late');
  });
  stack.signal('worker', 'SIGCONT');
});

test('items and open invoices come in from files: columns guessed, what is wrong told, the same file twice nothing', async () => {
  await page.setViewport({ width: 1280, height: 800 });
  const file = join(stack.folder, 'open.csv');
  const bring = async () => {
    await visit(page, `${stack.web}/ask/invoices/import`);
    const chooser = page.waitForFileChooser();
    await page.evaluate(() => document.querySelector<HTMLInputElement>('input[type=file]')?.click());
    await (await chooser).accept([file]);
    await untilShown(page, 'What is in each column?');
  };
  writeFileSync(
    file,
    '\uFEFFRechnungsnummer;Kunde;Rechnungsdatum;Fällig am;Brutto;Bezahlt\r\nR-1;Ängström & Söhne;2026-02-01;;480.00;200\r\nR-2;Nobody;;;75;\r\n',
  );
  await bring();
  await expectAccessible(page, 'columns of open invoices');
  await press(page, 'Check 2 rows', 'button');
  await untilShown(page, '1 can be added, 1 cannot.');
  await untilShown(page, 'No day of issue');
  await press(page, 'Add 1 invoice', 'button');
  await untilShown(page, '1 was added, 1 was not.');
  await press(page, 'To the invoices', 'button');
  await untilTrue(page, () => document.body.innerText.includes('Ängström'));
  await bring();
  await press(page, 'Check 2 rows', 'button');
  await untilShown(page, 'There is an invoice R-1 already');

  const items = join(stack.folder, 'items.csv');
  writeFileSync(items, 'SKU,Product,Unit price,Stock\nW-1,"Wax, brown",4.50,12\n');
  await visit(page, `${stack.web}/records/items/import`);
  const chooser = page.waitForFileChooser();
  await page.evaluate(() => document.querySelector<HTMLInputElement>('input[type=file]')?.click());
  await (await chooser).accept([items]);
  await press(page, 'Check 1 rows', 'button');
  await press(page, 'Add 1 item', 'button');
  await untilShown(page, '1 was added');
  await press(page, 'To the items', 'button');
  await untilShown(page, 'Wax, brown');
  expect(errors).toEqual([]);
});
