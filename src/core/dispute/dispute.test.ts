import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { calendarDate } from '../dates/calendar-date';
import type { Account } from '../ledger/entry';
import { disputeLost, disputeOpened, disputeWon } from '../ledger/movements';
import { reversals } from '../share/split';
import { canBeOf, disputeTakes, mayAnswer, partnersOfDispute } from './dispute';
import { type FilePart, includedParts } from './payment-file';

const BOOKING = { on: calendarDate('2026-11-27'), words: 'Dispute', currency: 'USD' };
const sum = (list: readonly bigint[]) => list.reduce((all, one) => all + one, 0n);
/** A payment of which some is given back, and up to three partners' shares of it. */
const paid = fc
  .record({
    amountMinor: fc.bigInt(2n, 10n ** 9n),
    tipMinor: fc.bigInt(0n, 10n ** 6n),
    back: fc.integer({ min: 0, max: 99 }),
    shares: fc.array(fc.integer({ min: 0, max: 33 }), { maxLength: 3 }),
  })
  .map(({ amountMinor, tipMinor, back, shares }) => ({
    amountMinor,
    tipMinor,
    backMinor: (amountMinor * BigInt(back)) / 100n,
    shares: shares.map((percent) => ({ shareMinor: (amountMinor * BigInt(percent)) / 100n })),
  }));

describe('what a dispute takes', () => {
  test('of partners all that giving back has left of their shares, or nothing by the other rule', () => {
    fc.assert(
      fc.property(paid, fc.bigInt(0n, 5000n), (of, feeMinor) => {
        const amountMinor = of.amountMinor - of.backMinor + of.tipMinor;
        const shares = of.shares.map(({ shareMinor }) => shareMinor);
        const [before] = reversals(of.amountMinor, shares, [of.backMinor]);
        const all = disputeTakes(of, { amountMinor, feeMinor }, 'partners');
        expect(all.partners.map((minor, at) => minor + (before?.partners[at] ?? 0n))).toEqual(shares);
        expect(sum(disputeTakes(of, { amountMinor, feeMinor }, 'business').partners)).toBe(0n);
      }),
    );
  });

  test('is never nothing, and never more than was paid', () => {
    const of = { amountMinor: 100n, tipMinor: 10n, backMinor: 0n, shares: [] };
    for (const amountMinor of [0n, -1n, 111n])
      expect(() => disputeTakes(of, { amountMinor, feeMinor: 0n }, 'partners')).toThrow('amount');
    expect(disputeTakes(of, { amountMinor: 110n, feeMinor: 0n }, 'partners').amountMinor).toBe(110n);
  });
});

describe('the books', () => {
  test('won with its fee back leaves nothing; lost leaves the loss and the fee, less what partners bear', () => {
    fc.assert(
      fc.property(paid, fc.bigInt(0n, 5000n), fc.bigInt(0n, 5000n), (of, fee, kept) => {
        const feeMinor = fee + kept;
        const amountMinor = of.amountMinor - of.backMinor + of.tipMinor;
        const takes = disputeTakes(of, { amountMinor, feeMinor }, 'partners');
        const sums = { ...takes, partners: partnersOfDispute(takes) };
        const holds = (last: ReturnType<typeof disputeWon>): Partial<Record<Account, bigint>> => {
          const kept = new Map<Account, bigint>();
          for (const { postings } of [disputeOpened(BOOKING, sums), last])
            for (const { account, amount } of postings) kept.set(account, (kept.get(account) ?? 0n) + amount.minor);
          return Object.fromEntries([...kept].filter(([, minor]) => minor !== 0n));
        };
        expect(holds(disputeWon(BOOKING, sums, feeMinor))).toEqual({});
        const won = holds(disputeWon(BOOKING, sums, fee));
        expect([won['dispute-fees'] ?? 0n, won['processor-clearing'] ?? 0n]).toEqual([kept, -kept]);
        const lost = holds(disputeLost(BOOKING, amountMinor));
        expect(lost['dispute-losses']).toBe(amountMinor);
        expect(lost['processor-clearing']).toBe(-amountMinor - feeMinor);
        expect(lost.disputed).toBeUndefined();
        expect(lost.partners ?? 0n).toBe(sum(takes.partners));
      }),
    );
  });
});

test('what is of another currency, or of more than was paid, is of another payment', () => {
  const paid = { currency: 'USD', amountMinor: 100n, tipMinor: 10n };
  const told = (amountMinor: bigint, currency = 'USD') => canBeOf({ amountMinor, currency }, paid);
  expect([told(1n), told(110n)]).toEqual([true, true]);
  expect([told(0n), told(111n), told(100n, 'EUR')]).toEqual([false, false, false]);
});

test('an answer is taken while it is open and its last moment is not over', () => {
  const answerBy = new Date('2026-12-01T00:00:00Z');
  const at = (iso: string) => new Date(iso);
  expect(mayAnswer({ state: 'open', answerBy }, at('2026-11-30T23:59:59Z'))).toBe(true);
  expect(mayAnswer({ state: 'open', answerBy }, at('2026-12-01T00:00:00Z'))).toBe(false);
  expect(mayAnswer({ state: 'sent', answerBy }, at('2026-11-30T00:00:00Z'))).toBe(false);
});

test('a file leaves out what is empty and what a person left out, but never what it is about', () => {
  const part = (key: FilePart['key'], rows: FilePart['rows'] = [['What', 'text']]): FilePart => ({
    key,
    rows,
    texts: [],
    papers: [],
  });
  const parts = [part('visits'), part('terms', []), part('sold'), part('payment'), part('messages')];
  const keys = (leftOut: readonly string[]) => includedParts(parts, leftOut).map(({ key }) => key);
  expect(keys([])).toEqual(['payment', 'sold', 'messages', 'visits']);
  expect(keys(['payment', 'visits', 'nobody'])).toEqual(['payment', 'sold', 'messages']);
});
