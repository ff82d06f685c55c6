import { describe, expect, test } from 'vitest';
import {
  type BatchBack,
  type BatchDispute,
  type BatchSale,
  type BookSale,
  batchDifferences,
  batchSums,
  moveKey,
} from './day-batch';

const AT = new Date('2026-11-20T18:00:00Z');
const sale = (at: number, change: Partial<BatchSale> = {}): BatchSale => ({
  paymentId: `p${at}`,
  channel: at % 2 ? 'plan' : 'invoice',
  currency: at % 5 === 4 ? 'EUR' : 'USD',
  amountMinor: BigInt(1000 + at * 37),
  feeMinor: BigInt(30 + at),
  voided: false,
  ...change,
});
const back = (of: BatchSale, change: Partial<BatchBack> = {}): BatchBack => ({
  refundId: `r-${of.paymentId}`,
  paymentId: of.paymentId,
  kind: 'refund',
  currency: of.currency,
  amountMinor: 100n,
  feeBackMinor: 0n,
  ...change,
});
/** What an honest processor has of the same day. */
const there = (sales: readonly BatchSale[], backs: readonly BatchBack[]): BookSale[] =>
  sales.map((one) => ({
    paymentId: one.paymentId,
    words: `Sale ${one.paymentId}`,
    status: one.voided ? 'voided' : 'accepted',
    currency: one.currency,
    amountMinor: one.amountMinor,
    feeMinor: one.voided ? 0n : one.feeMinor,
    at: AT,
    backs: backs
      .filter(({ paymentId, kind }) => paymentId === one.paymentId && kind === 'refund')
      .map(({ refundId, amountMinor }) => ({ refundId, amountMinor, feeMinor: 0n, at: AT })),
    dispute: null,
  }));

const sales = Array.from({ length: 12 }, (_, at) => sale(at));
const [first, second] = [sale(0), sale(1, { voided: true })];
const mixed = [first, second, ...sales.slice(2)];
const backs = [
  back(first),
  back(second, { kind: 'void', amountMinor: second.amountMinor, feeBackMinor: second.feeMinor }),
];
const dispute = (of: BatchSale, kind: BatchDispute['kind'], feeMinor: bigint): BatchDispute => ({
  disputeId: `d-${of.paymentId}`,
  paymentId: of.paymentId,
  kind,
  currency: of.currency,
  amountMinor: of.amountMinor,
  feeMinor,
});
const disputes = [
  dispute(sale(2), 'disputed', 1500n),
  dispute(sale(3), 'dispute-won', 1500n),
  dispute(sale(4), 'disputed', 0n),
];
const known = new Set([...mixed.map(({ paymentId }) => paymentId), ...backs.map(({ refundId }) => refundId)]);

describe('a day’s sums', () => {
  test('worked by hand: two sales, a refund, and a void that gives its fee back', () => {
    const two = [
      sale(0, { amountMinor: 10_000n, feeMinor: 320n }),
      sale(1, { amountMinor: 5_000n, feeMinor: 175n, voided: true }),
    ];
    const back1 = back(sale(0), { amountMinor: 2_500n });
    const back2 = back(sale(1), { kind: 'void', amountMinor: 5_000n, feeBackMinor: 175n });
    expect(batchSums(two, [back1, back2], [])).toEqual([
      {
        currency: 'USD',
        sales: 2,
        salesMinor: 15_000n,
        backs: 2,
        backMinor: 7_500n,
        feesMinor: 320n,
        disputes: 0,
        disputedMinor: 0n,
        disputeFeesMinor: 0n,
        netMinor: 7_180n,
        channels: [
          { channel: 'invoice', sales: 1, salesMinor: 10_000n },
          { channel: 'plan', sales: 1, salesMinor: 5_000n },
        ],
      },
    ]);
  });

  test('channels add up to the sales, in each currency, and currencies are never mixed', () => {
    const sums = batchSums(mixed, backs, disputes);
    expect(sums.map(({ currency }) => currency)).toEqual(['USD', 'EUR']);
    for (const sum of sums) {
      expect(sum.channels.reduce((all, one) => all + one.salesMinor, 0n)).toBe(sum.salesMinor);
      expect(sum.netMinor + sum.feesMinor + sum.backMinor + sum.disputedMinor + sum.disputeFeesMinor).toBe(
        sum.salesMinor,
      );
    }
    expect(sums.reduce((all, one) => all + one.sales, 0)).toBe(mixed.length);
  });

  test('a dispute takes its sum and fee, a won one gives back what the processor says', () => {
    expect(batchSums([], [], [disputes[0] as BatchDispute])).toMatchObject([
      { disputes: 1, disputedMinor: 1074n, disputeFeesMinor: 1500n, netMinor: -2574n, sales: 0 },
    ]);
    const both = [dispute(sale(2), 'disputed', 1500n), dispute(sale(2), 'dispute-won', 0n)];
    expect(batchSums([], [], both)).toMatchObject([{ disputes: 2, disputedMinor: 0n, netMinor: -1500n }]);
  });

  test('a day on which money was only given back is negative', () => {
    expect(batchSums([], [back(first)], [])[0]).toMatchObject({ sales: 0, netMinor: -100n });
  });
});

describe('two books', () => {
  const book = there(mixed, backs);
  const compared = (theirs: readonly BookSale[], own = known) =>
    batchDifferences({ sales: mixed, backs, disputes: [] }, theirs, own, () => true).map(({ kind, paymentId }) => [
      kind,
      paymentId,
    ]);

  test('that say the same have no difference', () => expect(compared(book)).toEqual([]));

  test('each way of differing is found once, at its payment', () => {
    const changed = (id: string, change: Partial<BookSale>) =>
      book.map((one) => (one.paymentId === id ? { ...one, ...change } : one));
    expect(compared(book.filter(({ paymentId }) => paymentId !== 'p3'))).toEqual([['only-here', 'p3']]);
    expect(compared(changed('p3', { status: 'voided' }))).toEqual([['only-here', 'p3']]);
    expect(compared(changed('p3', { amountMinor: 1n }))).toEqual([['amount', 'p3']]);
    expect(compared(changed('p3', { currency: 'GBP' }))).toEqual([['amount', 'p3']]);
    expect(compared(changed('p3', { feeMinor: 1n }))).toEqual([['fee', 'p3']]);
    expect(compared(changed('p0', { backs: [] }))).toEqual([['back-only-here', 'p0']]);
    expect(compared(changed('p1', { status: 'accepted' }))).toEqual([
      ['only-here', 'p1'],
      ['back-only-here', 'p1'],
    ]);
    const more = sale(20);
    expect(compared([...book, ...there([more], [])])).toEqual([['only-there', 'p20']]);
    const unknownBack = [{ refundId: 'r9', amountMinor: 5n, feeMinor: 0n, at: AT }];
    expect(compared(changed('p3', { backs: unknownBack }))).toEqual([['back-only-there', 'p3']]);
  });

  test('disputes are compared by sum and fee, and what is known of another day is no difference', () => {
    const said = {
      disputeId: 'd-p3',
      amountMinor: 1111n,
      feeMinor: 1500n,
      at: AT,
      won: { at: AT, feeBackMinor: 1500n },
    };
    const theirs = book.map((one) => (one.paymentId === 'p3' ? { ...one, dispute: said } : one));
    const kinds = (own: readonly BatchDispute[], more: readonly string[] = []) =>
      batchDifferences({ sales: mixed, backs, disputes: own }, theirs, new Set([...known, ...more]), () => true).map(
        ({ kind, paymentId }) => [kind, paymentId],
      );
    const [taken, won] = [dispute(sale(3), 'disputed', 1500n), dispute(sale(3), 'dispute-won', 1500n)];
    const keys = [moveKey('disputed', 'd-p3'), moveKey('dispute-won', 'd-p3')];
    expect(kinds([taken, won], keys)).toEqual([]);
    expect(kinds([], keys)).toEqual([]);
    expect(kinds([taken], keys.slice(0, 1))).toEqual([['dispute-only-there', 'p3']]);
    expect(kinds([{ ...taken, amountMinor: 1n }, won], keys)).toEqual([['dispute-only-here', 'p3']]);
    expect(kinds([taken, won, dispute(sale(2), 'disputed', 0n)], keys)).toEqual([['dispute-only-here', 'p2']]);
  });

  test('a sale around midnight that counts on another day here is no difference', () => {
    const late = there([sale(30)], []);
    expect(compared([...book, ...late], new Set([...known, 'p30']))).toEqual([]);
    expect(batchDifferences({ sales: [], backs: [], disputes: [] }, late, new Set(), () => false)).toEqual([]);
  });

  test('what never was accepted there is nobody’s', () => {
    const refused = there([sale(40)], []).map((one) => ({ ...one, status: 'refused' }));
    expect(compared([...book, ...refused])).toEqual([]);
  });
});
