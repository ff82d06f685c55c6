/** Programs are killed at seeded points while invoices are paid, sent as a batch and reminded of; afterwards each was once. */
import { afterAll, beforeAll, expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import { sendBy } from '@/core/invoice/send-with';
import { ledgerTroubles } from '@/db/ledger';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { checkBulk, sendBulk } from '@/flows/invoice/bulk-invoices';
import { addCustomer } from '@/flows/records/customers';
import type { ProgramName } from '../../bin/stack/programs';
import { asSuperuser } from '../support/database';
import { seeded } from '../support/seeded';
import { type Stack, startStack } from '../support/stack';
import { pause, until } from '../support/until';
import {
  cardToken,
  fetchedWork,
  foundHouse,
  type House,
  keptDraft,
  mailOf,
  plainPaper,
  type StoredMail,
  sentInvoice,
} from '../support/workshop';

const INVOICES = 50;
const PAYERS = 8;
const KILLS = 9;
const SEED = 41;
const BATCH = 45;
const REMINDED = 20;

let stack: Stack;
let house: House;
beforeAll(async () => {
  stack = await startStack({
    CARD_ATTEMPTS_PER_ADDRESS: '10000',
    CARD_ATTEMPTS_PER_INVOICE: '10000',
    CARD_REFUSALS_PER_ADDRESS: '10000',
    CARD_REFUSALS_PER_CARD: '10000',
  });
  house = await foundHouse();
});
afterAll(() => stack?.close());

type AttemptStatus = { state: string };
/** Asks as a page does; null where nobody answers, as a page would go on asking. */
async function ask(path: string, body?: object): Promise<{ ok: boolean; value?: AttemptStatus; code?: string } | null> {
  try {
    const answer = await fetch(`${stack.web}${path}`, {
      method: body ? 'POST' : 'GET',
      headers: { 'content-type': 'application/json', origin: stack.web },
      ...(body ? { body: JSON.stringify(body) } : {}),
      signal: AbortSignal.timeout(8000),
    });
    return (await answer.json()) as { ok: boolean; value?: AttemptStatus; code?: string };
  } catch {
    return null;
  }
}

/** Pays like a stubborn person: presses again after a refusal, asks while there is no answer, waits while nothing runs, until it is paid. */
async function payStubbornly(link: string, cards: readonly string[]): Promise<void> {
  for (let press = 0; press < 60; ) {
    const token = await cardToken(stack.standIns, cards[press % cards.length] ?? 'corvid-good').catch(() => null);
    const work = token && (await fetchedWork(stack.web, `/api/pay/${link}`).catch(() => null));
    // Nobody there to press anything at: how long that lasts is the machine's, and counts for nothing.
    if (!token || !work) {
      await pause(150);
      continue;
    }
    press++;
    const attemptKey = crypto.randomUUID();
    let answer = await ask(`/api/pay/${link}`, { attemptKey, cardToken: token, amountMinor: 11_000, work });
    for (let asked = 0; asked < 200; asked++) {
      if (answer?.code === 'already-paid' || answer?.value?.state === 'paid') return;
      if (answer && (answer.value?.state === 'refused' || answer.value?.state === 'none')) break;
      await pause(150);
      answer = await ask(`/api/pay/${link}/status?attempt=${attemptKey}`);
    }
  }
  throw new Error(`Never paid: ${link}`);
}

test('fifty invoices are each paid once, whatever is killed', async () => {
  const random = seeded(SEED);
  const invoices: { link: string; number: string }[] = [];
  for (let at = 0; at < INVOICES; at++) invoices.push(await sentInvoice(house));

  const waiting = [...invoices];
  const payers = Array.from({ length: PAYERS }, async () => {
    for (let next = waiting.pop(); next; next = waiting.pop()) {
      // Some are refused first, some have no answer in time.
      const mood = Number(next.number) % 10;
      await payStubbornly(
        next.link,
        mood === 0 ? ['corvid-poor', 'lumen-good'] : mood === 5 ? ['corvid-late'] : ['corvid-good'],
      );
    }
  });
  const programs: readonly ProgramName[] = ['web', 'worker', 'standins'];
  const killer = (async () => {
    for (let kill = 0; kill < KILLS; kill++) {
      await pause(120 + random() * 900);
      await stack.killAndRestart(programs[Math.floor(random() * programs.length)] ?? 'web');
    }
  })();
  await Promise.all([...payers, killer]);

  // The mails of the last payments may still be on their way, and jobs of killed workers wait until they are given back.
  const unfinished = () =>
    asSuperuser(stack.admin, `select kind from messages where state = 'queued'`).then((rows) => rows.length);
  await until('every mail is handed over', async () => (await unfinished()) === 0);

  // Our book: every invoice paid, once; the ledger balances.
  const ours = await asSuperuser<{ key: string; amount: number }>(
    stack.admin,
    `select business_id || '.' || id as key, amount_minor::int as amount from payments where state = 'paid' order by 1`,
  );
  expect(ours.length).toBe(INVOICES);
  expect(await readBusiness(programContext(house.business.id), (db) => ledgerTroubles(db))).toEqual([]);
  expect(await asSuperuser(stack.admin, `select number from invoices where due_minor <> 0`)).toEqual([]);

  // The processor's own book says the same.
  const book = await fetch(`${stack.standIns}/cards/api/book`, { headers: { authorization: 'Bearer stand-in-key' } });
  const { sales } = (await book.json()) as { sales: { key: string; status: string; amount: number }[] };
  const theirs = sales.filter(({ status }) => status === 'accepted').map(({ key, amount }) => ({ key, amount }));
  expect(theirs.sort((a, b) => (a.key < b.key ? -1 : 1))).toEqual(ours);

  // Receipts are numbered without gaps, and each is sent at least once and at most twice, under one Message-ID.
  const receipts = await asSuperuser<{ number: string }>(stack.admin, 'select number from receipts');
  expect(receipts.map(({ number }) => Number(number)).sort((a, b) => a - b)).toEqual(
    Array.from({ length: INVOICES }, (_, at) => at + 1),
  );
  const sent = new Map<string, StoredMail[]>();
  for (const mail of await mailOf(stack.standIns, 'perpetua@vane.example')) {
    const number = /^Receipt (\d+) /.exec(mail.subject)?.[1];
    if (number) sent.set(number, [...(sent.get(number) ?? []), mail]);
  }
  expect(sent.size).toBe(INVOICES);
  for (const copies of sent.values()) {
    expect(copies.length).toBeLessThanOrEqual(2);
    expect(new Set(copies.map(({ messageId }) => messageId)).size).toBe(1);
  }
}, 600_000);

test('a batch and its reminders are sent once each, whatever becomes of the worker', async () => {
  const own = await foundHouse('Batching');
  const { businessId } = own.owner;
  const group = 'Choir';
  for (let at = 0; at < BATCH; at++)
    await addCustomer(own.owner, newCustomer(`Singer ${at}`, { email: `singer${at}@batch.example`, groups: [group] }));
  // Two of each customer, who get one mail for both.
  for (let at = 0; at < REMINDED; at += 2) {
    const { id: customerId } = await addCustomer(
      own.owner,
      newCustomer(`Late ${at}`, { email: `late${at}@late.example` }),
    );
    for (let both = 0; both < 2; both++)
      await sentInvoice(own, plainPaper(own, { customerId, due: { kind: 'receipt' }, reminders: [1] }));
  }
  await asSuperuser(stack.admin, `update reminders set remind_on = current_date - 2 where business_id = $1`, [
    businessId,
  ]);
  await asSuperuser(stack.admin, `update businesses set quiet_from = '00:00', quiet_to = '00:00'`);
  const batch = await checkBulk(
    own.owner,
    await keptDraft(own),
    '',
    { customerIds: [], group, rows: [] },
    sendBy('mail'),
  );
  await sendBulk(own.owner, batch);
  const minute = () => asSuperuser(stack.admin, `select graphile_worker.add_job('minute')`);
  const random = seeded(SEED + 1);
  for (let kill = 0; kill < 4; kill++) {
    await minute();
    await pause(150 + random() * 900);
    await stack.killAndRestart('worker');
  }
  await minute();
  const open = async (): Promise<number> => {
    const [row] = await asSuperuser<{ open: number }>(
      stack.admin,
      `select ((select count(*) from bulk_rows where state <> 'sent') + (select count(*) from reminders where state = 'waiting')
        + (select count(*) from messages where state = 'queued'))::int as open`,
    );
    return row?.open ?? 0;
  };
  await until('all of it is sent', async () => (await open()) === 0);

  const numbers = (
    await asSuperuser<{ number: string }>(
      stack.admin,
      'select number from invoices where business_id = $1 and number is not null',
      [businessId],
    )
  ).map(({ number }) => Number(number));
  expect(numbers.sort((a, b) => a - b)).toEqual(Array.from({ length: BATCH + REMINDED }, (_, at) => at + 1));
  expect(await readBusiness(programContext(businessId), (db) => ledgerTroubles(db))).toEqual([]);
  const reminders = await asSuperuser<{ of: string[] }>(
    stack.admin,
    `select array[invoice_id::text] || array(select jsonb_array_elements_text(details->'others')) as of
       from messages where kind = 'reminder'`,
  );
  expect(reminders.map(({ of }) => of.length)).toEqual(Array.from({ length: REMINDED / 2 }, () => 2));
  expect(new Set(reminders.flatMap(({ of }) => of)).size).toBe(REMINDED);
  for (let at = 0; at < BATCH; at++) {
    const copies = await mailOf(stack.standIns, `singer${at}@batch.example`);
    expect(copies.length).toBeGreaterThanOrEqual(1);
    // One handed over just before a kill goes out once more, and is told to be the same by its Message-ID.
    expect(new Set(copies.map(({ messageId }) => messageId)).size).toBe(1);
  }
}, 600_000);
