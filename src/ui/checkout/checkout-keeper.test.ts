import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { blankChoice, type Choice } from '@/core/offer/choice';
import type { ShownQuote } from '@/core/offer/shown';
import { TestMemory } from '../../../tests/support/memory';
import type { Answer } from '../kit/send';
import type { AttemptStatus } from '../payer/card-payment';
import { CheckoutKeeper, PAUSE_MS } from './checkout-keeper';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

const shown = (total: string, token: string): ShownQuote => ({
  token,
  total,
  currency: 'USD',
  rows: [],
  totalMinor: 0,
  charged: total,
  chargedMinor: 0,
  problems: [{ field: 'email', words: 'Write your address.' }],
  codeCounts: false,
  voucher: null,
  later: '',
  laterMinor: null,
  rateNote: '',
});

/** Works sums out as the server does: what is typed as the amount is the sum; each answer takes as long as is said. */
class Server {
  asked: { amount: string; token: string }[] = [];
  takes: number[] = [];
  lost = false;
  status: AttemptStatus = { state: 'none' };

  readonly quote = async (choice: Choice, token: string): Promise<Answer<ShownQuote>> => {
    this.asked.push({ amount: choice.amount, token });
    const number = this.asked.length;
    await new Promise((resolve) => setTimeout(resolve, this.takes.shift() ?? 50));
    if (this.lost) return { ok: false, code: 'unreachable', words: '', fields: [] };
    return { ok: true, value: shown(choice.amount, `token ${number}`) };
  };
}

function open(server: Server, store = new TestMemory(), keys = ['key-1', 'key-2']) {
  return new CheckoutKeeper(blankChoice('USD'), shown('first', 'token 0'), {
    quote: server.quote,
    status: async () => ({ ok: true, value: server.status }),
    store,
    place: 'here',
    newKey: () => keys.shift() ?? 'none',
  });
}

test('the first sum came with the page: nothing is asked before something changes', async () => {
  const server = new Server();
  const keeper = open(server);
  keeper.begin();
  await vi.advanceTimersByTimeAsync(5000);
  expect(server.asked).toEqual([]);
  expect(keeper.view()).toMatchObject({ key: 'key-1', waiting: false, status: { state: 'none' } });
});

test('what is typed in one go is worked out once, held to the quote that was shown', async () => {
  const server = new Server();
  const keeper = open(server);
  keeper.begin();
  for (const amount of ['1', '12', '12.5']) keeper.change({ amount });
  expect(keeper.view().waiting).toBe(true);
  await vi.advanceTimersByTimeAsync(PAUSE_MS + 60);
  expect(server.asked).toEqual([{ amount: '12.5', token: 'token 0' }]);
  expect(keeper.view()).toMatchObject({ waiting: false, quote: { total: '12.5' } });
});

test('an older sum that comes later than a newer one is not shown', async () => {
  const server = new Server();
  server.takes = [900, 50];
  const keeper = open(server);
  keeper.begin();
  keeper.change({ amount: '10' });
  await vi.advanceTimersByTimeAsync(PAUSE_MS + 10);
  keeper.change({ amount: '20' });
  await vi.advanceTimersByTimeAsync(2000);
  expect(server.asked.map(({ amount }) => amount)).toEqual(['10', '20']);
  expect(keeper.view()).toMatchObject({ waiting: false, quote: { total: '20' } });
});

test('a press on the button does not wait for the pause', async () => {
  const server = new Server();
  const keeper = open(server);
  keeper.begin();
  keeper.change({ amount: '30' });
  keeper.hasten();
  await vi.advanceTimersByTimeAsync(60);
  expect(keeper.view()).toMatchObject({ waiting: false, quote: { total: '30' } });
  await vi.advanceTimersByTimeAsync(5000);
  expect(server.asked.length).toBe(1);
});

test('without an answer the sum is still to come, and the next change asks again', async () => {
  const server = new Server();
  server.lost = true;
  const keeper = open(server);
  keeper.begin();
  keeper.change({ amount: '10' });
  await vi.advanceTimersByTimeAsync(1000);
  expect(keeper.view().waiting).toBe(true);
  server.lost = false;
  keeper.change({ email: 'a@b.example' });
  await vi.advanceTimersByTimeAsync(1000);
  expect(keeper.view()).toMatchObject({ waiting: false, quote: { total: '10' } });
});

test('a reload takes up what was filled in, under the same key, but agrees to nothing for the payer', async () => {
  const server = new Server();
  const store = new TestMemory();
  const before = open(server, store);
  before.begin();
  before.change({ amount: '15', name: 'Ödön', acceptsTerms: true, agrees: true });
  before.close();
  server.status = { state: 'checking' };
  const after = open(server, store, ['another']);
  after.begin();
  await vi.advanceTimersByTimeAsync(1000);
  expect(after.view()).toMatchObject({
    key: 'key-1',
    status: { state: 'checking' },
    choice: { amount: '15', name: 'Ödön', acceptsTerms: false, agrees: false },
    quote: { total: '15' },
  });
});

test('a paid checkout is forgotten: the next one in the tab is another, and says by which order it was paid', () => {
  const server = new Server();
  const store = new TestMemory();
  const paid = open(server, store);
  paid.begin();
  paid.forget('order-1');
  const next = open(server, store, ['key-2']);
  next.begin();
  expect(next.view()).toMatchObject({ key: 'key-2', paid: 'order-1', choice: next.begun });
  // Still so after a reload; once somebody fills it in it is a checkout of its own.
  const again = open(server, store, ['key-3']);
  again.begin();
  expect(again.view().paid).toBe('order-1');
  again.change({ name: 'Once more' });
  const last = open(server, store, ['key-4']);
  last.begin();
  expect(last.view()).toMatchObject({ key: 'key-3', paid: '' });
});

test('what was written before the page listened is taken over and worked out', async () => {
  const server = new Server();
  const keeper = open(server);
  keeper.begin({ name: 'Typed early' });
  expect(keeper.view()).toMatchObject({ choice: { name: 'Typed early' }, waiting: true });
  await vi.advanceTimersByTimeAsync(1000);
  expect(server.asked.length).toBe(1);
});

test('a tab that may keep nothing, or that kept nonsense, still pays', () => {
  class Locked extends TestMemory {
    override readonly getItem = () => '{';
    override readonly setItem = (): void => {
      throw new Error('forbidden');
    };
  }
  const keeper = open(new Server(), new Locked());
  keeper.begin();
  keeper.change({ name: 'x' });
  expect(keeper.view()).toMatchObject({ key: 'key-1', choice: { name: 'x' } });
});

test('what is missing is said where somebody has been, and everywhere once they want to pay', () => {
  const keeper = open(new Server());
  keeper.begin();
  expect(keeper.problemOf('email')).toBeUndefined();
  keeper.leave('email');
  expect(keeper.problemOf('email')).toBe('Write your address.');
  const other = open(new Server(), new TestMemory(), ['k']);
  other.begin();
  other.askForAll();
  expect(other.problemOf('email')).toBe('Write your address.');
});

test('a field left right after typing says only what the new check says of it', async () => {
  const keeper = open(new Server());
  keeper.begin();
  keeper.change({ email: 'a@example.test' });
  keeper.leave('email');
  expect(keeper.problemOf('email')).toBeUndefined();
  await vi.advanceTimersByTimeAsync(1000);
  expect(keeper.problemOf('email')).toBe('Write your address.');
});

test('against what holds now: a sum worked out anew is held to no earlier quote', async () => {
  const server = new Server();
  const keeper = open(server);
  keeper.begin();
  keeper.renew();
  await vi.advanceTimersByTimeAsync(100);
  expect(server.asked).toEqual([{ amount: '', token: '' }]);
});
