import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { beforeEach, describe, expect, test } from 'vitest';
import { Journal } from '../journal';
import { Seeded } from '../seeded';
import { checkDigit, PRETEND_CARDS } from './pretend-cards';
import { type CardEvent, Processor } from './processor';

let path: string;
const open = () =>
  new Processor(
    new Journal<CardEvent>(path),
    new Seeded('s'),
    () => Date.now(),
    () => undefined,
  );
const request = (processor: Processor, key: string, card: string, amount = 1000) => ({
  key,
  amount,
  currency: 'USD',
  reference: '',
  returnUrl: 'http://x',
  token: processor.tokenFor(card),
});

beforeEach(() => {
  path = join(mkdtempSync(join(tmpdir(), 'dahlia-book-')), 'book.ndjson');
});

test('every pretend number begins with 9, passes the check digit, and has a behaviour of its own or a scheme', () => {
  expect(new Set(PRETEND_CARDS.map(({ number }) => number)).size).toBe(PRETEND_CARDS.length);
  for (const { number } of PRETEND_CARDS) {
    expect(number).toMatch(/^9\d{15}$/);
    expect(checkDigit(number.slice(0, 15))).toBe(number.slice(15));
  }
  // ISO/IEC 7812-1 annex B, worked by hand: 7992739871 has the check digit 3.
  expect(checkDigit('7992739871')).toBe('3');
});

describe('the book', () => {
  test('one key is one sale, whatever is repeated and however often it is restarted', () => {
    const first = open();
    const made = first.sell(request(first, 'k', 'corvid-good'));
    const again = open();
    expect(again.sell(request(again, 'k', 'corvid-poor', 9))).toMatchObject({
      sale: { id: made?.sale.id, amount: 1000, status: 'accepted' },
    });
    expect(again.book().length).toBe(1);
  });

  test('a token that was never given sells nothing', () => {
    const processor = open();
    expect(processor.sell({ ...request(processor, 'k', 'corvid-good'), token: 'tok_made_up' })).toBeNull();
  });

  test('a closed key stays closed, an accepted sale stays accepted', () => {
    const processor = open();
    processor.close('early');
    expect(processor.sell(request(processor, 'early', 'corvid-good'))?.sale).toMatchObject({
      status: 'refused',
      reason: 'never-charged',
    });
    processor.sell(request(processor, 'sold', 'corvid-good'));
    expect(processor.close('sold')).toMatchObject({ status: 'accepted' });
  });

  test('the holder’s answer counts once', () => {
    const processor = open();
    const id = processor.sell(request(processor, 'k', 'lumen-approval'))?.sale.id ?? '';
    expect(processor.approve(id, false)).toMatchObject({ status: 'refused', reason: 'approval-declined' });
    expect(processor.approve(id, true)).toMatchObject({ status: 'refused' });
  });

  test('refunds never exceed the sale, one key gives back once, and a void takes back the whole', () => {
    const processor = open();
    const id = processor.sell(request(processor, 'k', 'corvid-good'))?.sale.id ?? '';
    expect(processor.refund(id, 'r1', 600)?.refunds.length).toBe(1);
    expect(processor.refund(id, 'r1', 600)?.refunds.length).toBe(1);
    expect(processor.refund(id, 'r2', 401)).toBeNull();
    expect(processor.refund(id, 'r2', 0.5)).toBeNull();
    expect(processor.void(id)).toBeNull();
    const other = processor.sell(request(processor, 'v', 'lumen-good'))?.sale.id ?? '';
    expect(processor.void(other)).toMatchObject({ status: 'voided', fee: 0 });
    expect(processor.void(other)).toMatchObject({ status: 'voided' });
    expect(processor.refund(other, 'r', 1)).toBeNull();
  });

  test('one card is disputed a week later, another ends with this month', () => {
    let now = Date.UTC(2026, 10, 3);
    const processor = new Processor(
      new Journal<CardEvent>(path),
      new Seeded('s'),
      () => now,
      () => undefined,
    );
    processor.sell(request(processor, 'd', 'corvid-dispute'));
    processor.sell(request(processor, 'good', 'corvid-good'));
    expect(processor.sell(request(processor, 'e', 'lumen-ending'))?.sale.card?.expires).toBe('2026-11');
    expect(processor.ask('good')?.card?.expires).toBe('2029-11');
    now += 6 * 86_400_000;
    expect(processor.ask('d')?.dispute).toBeNull();
    now += 86_400_000;
    expect(processor.ask('d')).toMatchObject({
      status: 'accepted',
      dispute: { at: '2026-11-10T00:00:00.000Z', answerBy: '2026-11-24T00:00:00.000Z', decided: null },
    });
    expect(processor.ask('good')?.dispute).toBeNull();
  });

  test('what went back in time is not disputed later, and a sale of which all went back never is', () => {
    let now = Date.UTC(2026, 10, 3);
    const processor = new Processor(
      new Journal<CardEvent>(path),
      new Seeded('s'),
      () => now,
      () => undefined,
    );
    for (const key of ['voided', 'refunded', 'part']) processor.sell(request(processor, key, 'corvid-dispute'));
    const id = (key: string) => processor.ask(key)?.id ?? '';
    processor.void(id('voided'));
    processor.refund(id('refunded'), 'all', processor.ask('refunded')?.amount ?? 0);
    processor.refund(id('part'), 'some', 1);
    now += 8 * 86_400_000;
    processor.look();
    expect(processor.disputed('').map(({ key }) => key)).toEqual(['part']);
    for (const key of ['voided', 'refunded', 'part']) expect(processor.openDispute(id(key), 'not-received')).toBeNull();
  });

  test('what is disputed is not refunded, is answered once, and is decided after that or by silence', () => {
    let now = Date.UTC(2026, 10, 3);
    const told: string[] = [];
    const processor = new Processor(
      new Journal<CardEvent>(path),
      new Seeded('s'),
      () => now,
      (sale) =>
        told.push(`${sale.key} ${sale.dispute?.decided ? sale.dispute.decided.by : sale.dispute ? 'open' : '-'}`),
    );
    for (const key of ['a', 'b', 'c']) processor.sell(request(processor, key, 'corvid-good'));
    processor.refund(processor.ask('a')?.id ?? '', 'r', 100);
    const opened = (key: string) => processor.openDispute(processor.ask(key)?.id ?? '', 'not-received')?.dispute;
    const [a, b] = [opened('a'), opened('b')];
    expect(a?.amount).toBe((processor.ask('a')?.amount ?? 0) - 100);
    expect(opened('a')).toBeUndefined();
    const id = processor.ask('a')?.id ?? '';
    expect([processor.refund(id, 'more', 1), processor.void(id)]).toEqual([null, null]);
    expect(processor.answerDispute('nobody', 'file', 9)).toBeNull();
    expect(processor.answerDispute(a?.id ?? '', 'file', 9)).toMatchObject({ dispute: { answer: { bytes: 9 } } });
    expect(processor.answerDispute(a?.id ?? '', 'file', 9)).not.toBe('late');
    expect(processor.answerDispute(a?.id ?? '', 'accept', 0)).toBe('late');
    now += 15 * 86_400_000;
    expect(processor.answerDispute(b?.id ?? '', 'file', 9)).toBe('late');
    expect(processor.ask('b')?.dispute?.decided).toMatchObject({ won: false, by: 'silence', feeBack: 0 });
    expect(processor.ask('a')?.dispute?.decided).toMatchObject({ by: 'decision' });
    expect(processor.openDispute(processor.ask('c')?.id ?? '', 'cancelled')).not.toBeNull();
    expect(processor.decideDispute(processor.ask('c')?.dispute?.id ?? '', true)?.dispute?.decided).toMatchObject({
      won: true,
      feeBack: 1500,
    });
    expect(processor.refund(processor.ask('c')?.id ?? '', 'after', 1)).not.toBeNull();
    expect(told).toContain('b silence');
    // What it kept is what it knows after a restart.
    const again = new Processor(
      new Journal<CardEvent>(path),
      new Seeded('s'),
      () => now,
      () => undefined,
    );
    expect(again.disputed('').map(({ dispute }) => dispute)).toEqual(
      processor.disputed('').map(({ dispute }) => dispute),
    );
  });

  test('holds no card number', () => {
    const processor = open();
    for (const card of PRETEND_CARDS) processor.sell(request(processor, card.name, card.name));
    const written = readFileSync(path, 'utf8');
    for (const card of PRETEND_CARDS) expect(written).not.toContain(card.number);
  });

  test('a line cut off by a kill is left out, and writing goes on behind it', async () => {
    const { appendFileSync } = await import('node:fs');
    const first = open();
    first.sell(request(first, 'k', 'corvid-good'));
    appendFileSync(path, '{"kind":"sale","sale":{"key":"half');
    const second = open();
    second.sell(request(second, 'l', 'corvid-good'));
    expect(
      open()
        .book()
        .map(({ key }) => key),
    ).toEqual(['k', 'l']);
  });
});

test('the same seed gives the same ids', () => {
  const one = open();
  const made = one.sell(request(one, 'k', 'corvid-good'))?.sale.id;
  path = `${path}.other`;
  const two = open();
  expect(two.sell(request(two, 'k', 'corvid-good'))?.sale.id).toBe(made);
});
