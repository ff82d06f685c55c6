import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Answer } from '../kit/send';
import { type AttemptStatus, CardPayment, type PayDoor } from './card-payment';

const lost: Answer<AttemptStatus> = { ok: false, code: 'unreachable', words: 'No connection.', fields: [] };
const yes = (value: AttemptStatus): Answer<AttemptStatus> => ({ ok: true, value });
const no = (code: string): Answer<AttemptStatus> => ({ ok: false, code, words: code, fields: [] });
const PAID = { state: 'paid', receipt: '/r' } as const;

/** Holds attempts by their keys as the server does: the same key is the same payment, whatever is asked how often. */
class Till {
  readonly attempts = new Map<string, AttemptStatus>();
  /** What a new attempt comes to. */
  outcome: AttemptStatus = PAID;
  /** Whether the next answer is lost on its way back. */
  losing = false;
  refusing = '';

  readonly post = async (path: string, body: object): Promise<Answer<AttemptStatus>> => {
    if (path.endsWith('/withdraw')) {
      for (const [key, { state }] of this.attempts)
        if (state === 'approval' || state === 'checking')
          this.attempts.set(key, { state: 'refused', words: '', reason: 'approval-declined' });
      return yes([...this.attempts.values()].at(-1) ?? { state: 'none' });
    }
    if (this.refusing) return no(this.refusing);
    const { attemptKey } = body as { attemptKey: string };
    const status = this.attempts.get(attemptKey) ?? this.outcome;
    this.attempts.set(attemptKey, status);
    return this.losing ? lost : yes(status);
  };
  readonly ask = async (path: string): Promise<Answer<AttemptStatus>> =>
    this.losing ? lost : yes(this.attempts.get(path.split('attempt=')[1] ?? '') ?? { state: 'none' });

  get charged(): number {
    return [...this.attempts.values()].filter(({ state }) => state === 'paid').length;
  }
}

function page(till: Till, part: Partial<PayDoor> = {}, pending: string | null = null) {
  const seen = { paid: 0, changed: [] as string[], hindered: 0, went: '' };
  let keys = 0;
  let card: { token: string } | { trouble: string } = { token: 'tok' };
  const door: PayDoor = {
    path: '/pay',
    body: {},
    statusQuery: (attempt) => `attempt=${attempt}`,
    withdraw: (attempt) => ({ attempt }),
    sum: '10.00',
    hindrance: null,
    onPaid: () => void seen.paid++,
    onChanged: (refusal) => void seen.changed.push(refusal?.code ?? ''),
    onHindered: () => void seen.hindered++,
    ...part,
  };
  const payment = new CardPayment(pending, null, {
    door: () => door,
    ask: till.ask,
    post: till.post,
    tokenise: async () => card,
    toBank: ({ url }) => {
      seen.went = url;
    },
    newKey: () => `key-${++keys}`,
    words: {
      refused: (reason) => reason,
      trouble: (answer) => answer.code,
      processorAway: 'away',
      collecting: (account, on) => `${account} ${on}`,
    },
  });
  return { payment, seen, setCard: (next: typeof card) => (card = next), keys: () => keys };
}

test('an accepted card is paid once, however often it is pressed', async () => {
  const till = new Till();
  const { payment, seen } = page(till);
  await Promise.all([payment.pay(), payment.pay()]);
  await payment.pay();
  expect(payment.view().stage).toBe('paid');
  expect({ charged: till.charged, paid: seen.paid }).toEqual({ charged: 1, paid: 1 });
});

test('a refused card says why, and the next press is another attempt', async () => {
  const till = new Till();
  till.outcome = { state: 'refused', words: '', reason: 'card-expired' };
  const { payment } = page(till);
  await payment.pay();
  expect(payment.view()).toMatchObject({ stage: 'ready', trouble: 'card-expired' });
  till.outcome = PAID;
  await payment.pay();
  expect([...till.attempts.keys()]).toEqual(['key-1', 'key-2']);
});

test('a lost answer is no lost payment: it is asked about under its key until it is known', async () => {
  const till = new Till();
  till.losing = true;
  const { payment, seen } = page(till);
  await payment.pay();
  expect(payment.view().stage).toBe('checking');
  await payment.look();
  expect(payment.view().stage).toBe('checking');
  till.losing = false;
  await payment.look();
  expect(payment.view().stage).toBe('paid');
  expect({ charged: till.charged, paid: seen.paid }).toEqual({ charged: 1, paid: 1 });
});

test('an attempt that never arrived frees the fields, and what is shown is read anew', async () => {
  const { payment, seen } = page(new Till(), {}, 'checking');
  await payment.look();
  expect(payment.view().stage).toBe('ready');
  expect(seen.changed).toEqual(['']);
});

describe('the holder’s bank', () => {
  test('is gone to at once, and what it says is heard on coming back', async () => {
    const till = new Till();
    till.outcome = { state: 'approval', url: 'https://bank.example/7' };
    const { payment, seen } = page(till);
    await payment.pay();
    expect({ stage: payment.view().stage, went: seen.went }).toEqual({
      stage: 'approval',
      went: 'https://bank.example/7',
    });
    till.attempts.set('key-1', PAID);
    await payment.look();
    expect(payment.view().stage).toBe('paid');
  });

  test('another card takes the attempt back before it is asked for', async () => {
    const till = new Till();
    till.outcome = { state: 'approval', url: 'https://bank.example/7' };
    const { payment } = page(till);
    await payment.pay();
    await payment.otherCard();
    expect(payment.view()).toMatchObject({ stage: 'ready', trouble: null });
    till.outcome = PAID;
    await payment.pay();
    expect(till.charged).toBe(1);
  });

  test('a page that begins while the bank is asked shows the way there', () => {
    const { payment } = page(new Till(), {}, 'https://bank.example/9');
    expect(payment.view()).toMatchObject({ stage: 'approval', bank: 'https://bank.example/9' });
  });
});

describe('nothing is sent', () => {
  test.each([
    ['while something hinders it', { hindrance: 'Choose a size.' }, { trouble: 'Choose a size.' }],
    ['where the work could not be done', { before: async () => null }, { trouble: 'away' }],
  ] as const)('%s', async (_, part, shown) => {
    const till = new Till();
    const { payment } = page(till, part);
    await payment.pay();
    expect(payment.view()).toMatchObject({ stage: 'ready', ...shown });
    expect(till.attempts.size).toBe(0);
  });

  test('for a card that is mistyped', async () => {
    const till = new Till();
    const { payment, setCard } = page(till);
    setCard({ trouble: 'The number is too short.' });
    await payment.pay();
    expect(payment.view()).toMatchObject({ stage: 'ready', trouble: 'The number is too short.' });
    expect(till.attempts.size).toBe(0);
  });
});

test('what costs nothing asks for no card', async () => {
  const till = new Till();
  const { payment, setCard } = page(till, { free: 'Order' });
  setCard({ trouble: 'No card' });
  await payment.pay();
  expect(payment.view().stage).toBe('paid');
});

test('an answer that refuses the attempt ends its key: it was never made', async () => {
  const till = new Till();
  till.refusing = 'sum-changed';
  const { payment, seen } = page(till);
  await payment.pay();
  expect(payment.view()).toMatchObject({ stage: 'ready', trouble: 'sum-changed' });
  expect(seen.changed).toEqual(['sum-changed']);
  till.refusing = '';
  await payment.pay();
  expect([...till.attempts.keys()]).toEqual(['key-2']);
});

const deed = fc.constantFrom('pay', 'look', 'other', 'lose', 'find', 'approve', 'decline', 'accept', 'bank' as const);

test('whatever is pressed and lost in whatever order, nobody is charged twice, and who was charged is told so in the end', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(deed, { maxLength: 14 }), async (deeds) => {
      const till = new Till();
      const { payment, seen } = page(till);
      const settle = (status: AttemptStatus) => {
        for (const [key, { state }] of till.attempts)
          if (state === 'approval' || state === 'checking') till.attempts.set(key, status);
      };
      for (const one of deeds) {
        if (one === 'pay') await payment.pay();
        else if (one === 'look' && payment.isOpen) await payment.look();
        else if (one === 'other' && payment.view().stage === 'approval') await payment.otherCard();
        else if (one === 'lose' || one === 'find') till.losing = one === 'lose';
        else if (one === 'accept') till.outcome = PAID;
        else if (one === 'bank') till.outcome = { state: 'approval', url: 'https://bank.example/1' };
        else if (one === 'approve') settle(PAID);
        else if (one === 'decline') settle({ state: 'refused', words: '', reason: 'approval-declined' });
      }
      till.losing = false;
      for (let looks = 0; looks < 3 && payment.isOpen; looks++) await payment.look();
      expect(till.charged).toBeLessThanOrEqual(1);
      expect(seen.paid).toBe(till.charged);
    }),
  );
});

test('what hindered the last press goes once it is put right, and gives way to what hinders now', async () => {
  const door = { hindrance: 'Write your name.' as string | null };
  const { payment } = page(new Till(), door as Partial<PayDoor>);
  await payment.pay();
  expect(payment.view().trouble).toBe('Write your name.');
  payment.hindered('Write the amount.');
  expect(payment.view().trouble).toBe('Write the amount.');
  payment.hindered(null);
  expect(payment.view().trouble).toBeNull();
  // What a card was refused for stays.
  payment.say('refused');
  payment.hindered(null);
  expect(payment.view().trouble).toBe('refused');
});

test('an attempt of before that the page tells of already is asked about while the fields stay, and a press waits for that', async () => {
  const told = (state: AttemptStatus) => {
    const till = new Till();
    till.attempts.set('before', state);
    const shown = page(till);
    shown.payment.resume('before', true);
    expect(shown.payment.view().stage).toBe('ready');
    return { till, ...shown };
  };
  const refused = told({ state: 'refused', words: '', reason: 'approval-declined' });
  await refused.payment.pay();
  expect(refused.payment.view().stage).toBe('paid');
  expect([...refused.till.attempts.keys()]).toEqual(['before', 'key-1']);
  for (const state of [{ state: 'checking' }, PAID] as const) {
    const { till, payment } = told(state);
    await payment.pay();
    expect(payment.view().stage).toBe(state.state);
    expect([...till.attempts.keys()]).toEqual(['before']);
  }
});
