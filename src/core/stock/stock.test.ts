import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { guessedColumns } from '../import/columns';
import { importedStock, USUAL_STOCK_HEADINGS } from './import-rows';
import { costShown, MOVEMENTS, type MovementKind, moved, type Stock, stockWorth } from './movement';
import { toOrder } from './order';
import { onHandCounted, onShelf, waitingForStock } from './shelf';

const NOTHING: Stock = { onHand: '0', promised: '0', averageCost: '' };
type Step = { kind: MovementKind; quantity: string; cost?: string };
const stockAfter = (steps: readonly Step[], start: Stock = NOTHING): Stock =>
  steps.reduce((stock, step) => moved(stock, step).after, start);

describe('the average cost', () => {
  test('is what was there at its average and what came at its price, by quantity', () => {
    const stock = stockAfter([
      { kind: 'received', quantity: '10', cost: '4' },
      { kind: 'received', quantity: '5', cost: '7' },
    ]);
    expect(stock).toEqual({ onHand: '15', promised: '0', averageCost: '5' });
    expect(stockWorth(stock, 'USD')).toBe(7500n);
    expect(stockWorth(stock, 'JPY')).toBe(75n);
    expect(stockWorth(stock, 'KWD')).toBe(75_000n);
  });

  test('is shown in the digits of its currency, and kept in its own', () => {
    expect(['USD', 'JPY', 'KWD'].map((currency) => costShown('69.686956', currency))).toEqual([
      '69.69',
      '70',
      '69.687',
    ]);
    expect(costShown('', 'USD')).toBe('');
  });

  test('stays when goods go, come back, are counted or come without a price', () => {
    const stock = stockAfter([
      { kind: 'received', quantity: '3', cost: '10' },
      { kind: 'received', quantity: '3', cost: '11' },
      { kind: 'thrown-away', quantity: '1' },
      { kind: 'returned', quantity: '1' },
      { kind: 'counted', quantity: '4' },
      { kind: 'received', quantity: '2' },
    ]);
    expect(stock).toEqual({ onHand: '6', promised: '0', averageCost: '10.5' });
  });

  test('what is below nothing has no part in it', () => {
    const short = stockAfter([
      { kind: 'received', quantity: '1', cost: '10' },
      { kind: 'promised', quantity: '3' },
      { kind: 'sold', quantity: '3' },
    ]);
    expect(short.onHand).toBe('-2');
    expect(stockWorth(short, 'USD')).toBe(0n);
    expect(stockAfter([{ kind: 'received', quantity: '5', cost: '12' }], short)).toEqual({
      onHand: '3',
      promised: '0',
      averageCost: '12',
    });
  });

  test('is rounded half away from zero to six decimals, and never leaves the prices that were paid', () => {
    const price = fc.integer({ min: 0, max: 100_000_000 }).map((n) => (n / 10_000).toFixed(4));
    const quantity = fc.integer({ min: 1, max: 900_000 }).map((n) => String(n / 100));
    fc.assert(
      fc.property(fc.array(fc.record({ quantity, cost: price }), { minLength: 1, maxLength: 20 }), (came) => {
        const { averageCost } = stockAfter(came.map((one) => ({ kind: 'received' as const, ...one })));
        const prices = came.map(({ cost }) => Number(cost));
        expect(Number(averageCost)).toBeGreaterThanOrEqual(Math.min(...prices) - 0.000_02);
        expect(Number(averageCost)).toBeLessThanOrEqual(Math.max(...prices) + 0.000_02);
      }),
    );
    expect(
      stockAfter([
        { kind: 'received', quantity: '1', cost: '1' },
        { kind: 'received', quantity: '2', cost: '2' },
      ]).averageCost,
    ).toBe('1.666667');
  });
});

test('whatever happens, what is on hand and promised is the sum of the log: a second count in whole hundredths agrees', () => {
  const step = fc.record({
    kind: fc.constantFrom(...MOVEMENTS),
    hundredths: fc.integer({ min: 1, max: 50_000 }),
  });
  fc.assert(
    fc.property(fc.array(step, { maxLength: 60 }), (steps) => {
      let stock: Stock = NOTHING;
      let [onHand, promised] = [0, 0];
      const sums = { onHand: 0, promised: 0 };
      for (const { kind, hundredths } of steps) {
        const change = moved(stock, { kind, quantity: String(hundredths / 100) });
        stock = change.after;
        sums.onHand += Math.round(Number(change.onHandBy) * 100);
        sums.promised += Math.round(Number(change.promisedBy) * 100);
        if (kind === 'opened' || kind === 'counted') onHand = hundredths;
        else if (kind === 'closed') onHand = 0;
        else if (['received', 'returned', 'unsold'].includes(kind)) onHand += hundredths;
        else if (['sold', 'thrown-away'].includes(kind)) onHand -= hundredths;
        if (kind === 'opened' || kind === 'closed') promised = 0;
        else if (kind === 'promised' || kind === 'unsold') promised += hundredths;
        else if (kind === 'freed' || kind === 'sold') promised -= hundredths;
      }
      expect([sums.onHand, sums.promised]).toEqual([onHand, promised]);
      expect([Math.round(Number(stock.onHand ?? 0) * 100), Math.round(Number(stock.promised) * 100)]).toEqual([
        onHand,
        promised,
      ]);
    }),
  );
});

test('nothing is kept any more once it is closed, and from what is counted once it is opened again', () => {
  const closed = moved({ onHand: '7', promised: '2', averageCost: '3' }, { kind: 'closed', quantity: '0' });
  expect([closed.onHandBy, closed.promisedBy, closed.after.onHand]).toEqual(['-7', '-2', null]);
  const opened = moved(closed.after, { kind: 'opened', quantity: '4', promised: '2' });
  expect([opened.promisedBy, opened.after.onHand, opened.after.promised]).toEqual(['2', '4', '2']);
});

describe('the shelf', () => {
  const out = { soldNotPacked: '2', packedNotSold: '1' };
  test('has what is sold and not packed, and lacks what went out on account', () => {
    expect(onShelf('5', out)).toBe('6');
    expect(onHandCounted('6', out)).toBe('5');
    expect(onShelf('-1', { soldNotPacked: '3', packedNotSold: '0' })).toBe('2');
  });

  test('who came first is served first, and nobody is overtaken for what they wait for', () => {
    const wish = (id: string, quantity: string, key = 'bow') => ({ id, goods: [{ key, quantity }] });
    const shelf = new Map([['bow', '3']]);
    expect(waitingForStock([wish('a', '2'), wish('b', '2'), wish('c', '1')], shelf)).toEqual(new Set(['b', 'c']));
    expect(waitingForStock([wish('a', '3'), wish('d', '9', 'not kept')], shelf)).toEqual(new Set());
  });

  test('who does not wait has all they want: what goes out at once is never more than lies there', () => {
    const wishes = fc.array(
      fc.record({
        goods: fc.array(
          fc.record({ key: fc.constantFrom('a', 'b', 'none'), quantity: fc.integer({ min: 1, max: 9 }).map(String) }),
          { minLength: 1, maxLength: 3 },
        ),
      }),
      { maxLength: 12 },
    );
    fc.assert(
      fc.property(wishes, fc.integer({ min: -5, max: 20 }), fc.integer({ min: -5, max: 20 }), (asked, a, b) => {
        const all = asked.map((one, at) => ({ id: String(at), ...one }));
        const waiting = waitingForStock(
          all,
          new Map([
            ['a', String(a)],
            ['b', String(b)],
          ]),
        );
        for (const [key, there] of [
          ['a', a],
          ['b', b],
        ] as const) {
          const goes = all
            .filter(({ id }) => !waiting.has(id))
            .flatMap(({ goods }) => goods.filter((one) => one.key === key));
          const sum = goes.reduce((total, { quantity }) => total + Number(quantity), 0);
          expect(sum === 0 || sum <= there).toBe(true);
        }
      }),
    );
  });
});

test.each([
  // Enough is there; at the mark; below; promised more than there is; part of a unit; without a mark.
  [{ available: '5', lowAt: '4', sold: '30' }, '0'],
  [{ available: '4', lowAt: '4', sold: '0' }, '1'],
  [{ available: '4', lowAt: '4', sold: '14' }, '14'],
  [{ available: '-3', lowAt: '2', sold: '6' }, '11'],
  [{ available: '1.5', lowAt: '2', sold: '0.25' }, '1'],
  [{ available: '-2.5', lowAt: null, sold: '40' }, '3'],
  [{ available: '0', lowAt: null, sold: '40' }, '0'],
])('how much to order: %j → %s', (asked, wanted) => {
  expect(toOrder(asked)).toBe(wanted);
});

describe('a list from elsewhere', () => {
  const read = (headings: readonly string[], cells: readonly string[], sign: '.' | ',' = '.') =>
    importedStock(cells, guessedColumns(headings, USUAL_STOCK_HEADINGS), sign);

  test.each([
    [
      ['Art.-Nr.', 'Menge', 'EP'],
      ['ROS-D', '1.200,5', '4,10 €'],
      ',',
      { code: 'ROS-D', quantity: '1200.5', cost: '4.1' },
    ],
    [['SKU', 'Name', 'Qty'], ['VLN-L', 'Strings', '12'], '.', { code: 'VLN-L', quantity: '12', cost: '' }],
    [
      ['Référence', 'Quantité', 'Prix unitaire'],
      ["'-A1", '3', '12,5'],
      ',',
      { code: '-A1', quantity: '3', cost: '12.5' },
    ],
    // Our own file, with what was counted written over what should lie there.
    [
      ['Code', 'Item', 'On hand', 'On the shelf'],
      ['CLO', 'Cello', '9', '0'],
      '.',
      { code: 'CLO', quantity: '0', cost: '' },
    ],
  ] as const)('%j %j', (headings, cells, sign, value) => {
    expect(read(headings, cells, sign)).toEqual({ ok: true, value });
  });

  test.each([
    [['', '3', ''], ['No code']],
    [
      ['A', 'three', 'x'],
      ['How many: not a number: three', 'Cost: not a number: x'],
    ],
    [['A', '', ''], ['How many: not a number: nothing']],
    [['A', '-3', ''], ['How many: not a number: -3']],
    [['A', '1.00001', ''], ['How many: not a number: 1.00001']],
    [
      ['A', '10000000000', '1.0000001'],
      ['How many: not a number: 10000000000', 'Cost: not a number: 1.0000001'],
    ],
  ])('%j is refused with its reasons', (cells, reasons) => {
    expect(read(['Code', 'Qty', 'Cost'], cells)).toEqual({ ok: false, reasons });
  });
});
