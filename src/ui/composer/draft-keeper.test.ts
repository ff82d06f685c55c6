import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { mayFollow } from '@/core/paper/kept-by';
import { completePaper, type Paper } from '@/core/paper/paper';
import { TestMemory } from '../../../tests/support/memory';
import type { Answer } from '../kit/send';
import { AGAIN_MS, DraftKeeper, type DraftToKeep, PAUSE_MS } from './draft-keeper';
import type { Kept } from './draft-state';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

const words = (note: string): Paper => completePaper({ note });

type Fate = 'arrives' | 'comes late' | 'is lost';

/** Keeps a draft as the real one does (`mayFollow`), and answers after a while. */
class Server {
  stands: Kept = { paper: words(''), revision: 1, by: null };
  reachable = true;
  gone: 'draft-already-sent' | 'not-found' | null = null;
  calls = 0;
  most = 0;
  under = 0;

  get note(): string {
    return this.stands.paper.note;
  }

  keep(draft: DraftToKeep): Answer<{ revision: number; keptAt: string }> {
    const no = (code: string) => ({ ok: false, code, words: code, fields: [] }) as const;
    if (!this.reachable) return no('unreachable');
    if (this.gone) return no(this.gone);
    if (!mayFollow(this.stands, draft)) return no('draft-changed-elsewhere');
    this.stands = { paper: draft.paper, revision: this.stands.revision + 1, by: draft.by };
    return { ok: true, value: { revision: this.stands.revision, keptAt: '2026-11-27T10:00:00Z' } };
  }

  /** Somebody else keeps words, in a window of theirs. */
  other(note: string): void {
    this.stands = { paper: words(note), revision: this.stands.revision + 1, by: { hand: 'other', step: 1 } };
  }
}

let hands = 0;

/** A page with a draft. `fate` is what becomes of what it still had on its way when it was reloaded. */
function open(server: Server, store = new TestMemory(), { held = false, known = new Map<string, Kept>() } = {}) {
  const gone: string[] = [];
  const page = { alive: true, fate: 'arrives' as Fate };
  const send = async (draft: DraftToKeep) => {
    if (!page.alive) return new Promise<never>(() => {});
    server.calls++;
    server.most = Math.max(server.most, ++server.under);
    await new Promise((resolve) => setTimeout(resolve, 200));
    if (!page.alive && page.fate === 'comes late') await new Promise((resolve) => setTimeout(resolve, 1500));
    server.under--;
    const answer = page.alive || page.fate !== 'is lost' ? server.keep(draft) : null;
    return page.alive && answer ? answer : new Promise<never>(() => {});
  };
  const reach = { send, store, known, onGone: (why: string) => gone.push(why), held };
  return { keeper: new DraftKeeper('d', server.stands, `hand ${++hands}`, reach), store, known, gone, page };
}

test('what is typed in one go is kept once, after a breath', async () => {
  const server = new Server();
  const { keeper, store } = open(server);
  for (const note of ['a', 'ab', 'abc']) keeper.change((paper) => ({ ...paper, note }));
  expect(store.size).toBe(1);
  await vi.advanceTimersByTimeAsync(PAUSE_MS + 300);
  expect(server).toMatchObject({ calls: 1, note: 'abc' });
  expect(keeper.view()).toMatchObject({ revision: 2, keeping: { state: 'kept' } });
  expect(store.size).toBe(0);
});

test('what is typed while a save is on its way is kept by the next, never by two at once', async () => {
  const server = new Server();
  const { keeper } = open(server);
  keeper.change((paper) => ({ ...paper, note: 'first' }));
  await vi.advanceTimersByTimeAsync(PAUSE_MS + 50);
  keeper.change((paper) => ({ ...paper, note: 'second' }));
  const flushed = keeper.flush();
  await vi.advanceTimersByTimeAsync(1000);
  expect(await flushed).toBe(true);
  expect(server).toMatchObject({ calls: 2, most: 1, note: 'second' });
});

test('without a connection it stays on this computer, is tried again, and goes once there is one', async () => {
  const server = new Server();
  server.reachable = false;
  const { keeper, store } = open(server);
  keeper.change((paper) => ({ ...paper, note: 'kept here' }));
  await vi.advanceTimersByTimeAsync(PAUSE_MS + 300);
  expect(keeper.view().keeping).toMatchObject({ state: 'here-only' });
  expect(store.size).toBe(1);
  server.reachable = true;
  await vi.advanceTimersByTimeAsync(AGAIN_MS + 300);
  expect(server.note).toBe('kept here');
  expect(store.size).toBe(0);
});

describe('after a reload', () => {
  test('what was not kept is taken up again by itself', async () => {
    const server = new Server();
    server.reachable = false;
    const { keeper, store } = open(server);
    keeper.change((paper) => ({ ...paper, note: 'half a sen' }));
    server.reachable = true;
    const { keeper: next } = open(server, store);
    expect(next.takeUp()).toBeNull();
    expect(next.view().paper.note).toBe('half a sen');
  });

  test('but not over what somebody kept since: the person says', () => {
    const server = new Server();
    const { keeper, store } = open(server);
    keeper.change((paper) => ({ ...paper, note: 'mine' }));
    server.other('theirs');
    const { keeper: next } = open(server, store);
    const restore = next.takeUp();
    expect(next.view().paper.note).toBe('theirs');
    restore?.();
    expect(next.view().paper.note).toBe('mine');
  });

  test('a memory that holds nonsense is no trouble', () => {
    const { keeper, store } = open(new Server());
    store.set('dahlia:draft:d', '{');
    expect(keeper.takeUp()).toBeNull();
  });
});

test.each([
  ['draft-already-sent', 'sent'],
  ['not-found', 'thrown-away'],
] as const)('a draft that is gone (%s) is said so, and nothing is tried again', async (code, why) => {
  const server = new Server();
  server.gone = code;
  const { keeper, store, gone } = open(server);
  keeper.change((paper) => ({ ...paper, note: 'late' }));
  await vi.advanceTimersByTimeAsync(60_000);
  expect(gone).toEqual([why]);
  expect(server.calls).toBe(1);
  expect(store.size).toBe(0);
});

test('changed elsewhere meanwhile: said, kept here, and never written over it', async () => {
  const server = new Server();
  const { keeper, store } = open(server);
  server.other('theirs');
  keeper.change((paper) => ({ ...paper, note: 'mine' }));
  await vi.advanceTimersByTimeAsync(60_000);
  expect(keeper.view().keeping).toMatchObject({ state: 'here-only' });
  expect(server).toMatchObject({ calls: 1, note: 'theirs' });
  expect(store.size).toBe(1);
});

test('another window’s version is shown while nothing waits here, and only then', () => {
  const server = new Server();
  const { keeper } = open(server);
  keeper.renew({ paper: words('theirs'), revision: 3, by: null });
  expect(keeper.view()).toMatchObject({ revision: 3, paper: { note: 'theirs' } });
  keeper.change((paper) => ({ ...paper, note: 'mine' }));
  keeper.renew({ paper: words('later'), revision: 4, by: null });
  expect(keeper.view()).toMatchObject({ revision: 3, paper: { note: 'mine' } });
});

test('a sent invoice that is changed keeps nothing by itself, not even when it is left', async () => {
  const server = new Server();
  const { keeper, store } = open(server, new TestMemory(), { held: true });
  keeper.change((paper) => ({ ...paper, note: 'version 2' }));
  keeper.again();
  keeper.leave();
  keeper.close();
  await vi.advanceTimersByTimeAsync(60_000);
  expect(server.calls).toBe(0);
  expect(store.size).toBe(0);
  expect(keeper.view().paper.note).toBe('version 2');
});

test('let go, it sends nothing more, however much was typed', async () => {
  const server = new Server();
  const { keeper, store } = open(server);
  keeper.change((paper) => ({ ...paper, note: 'a' }));
  await vi.advanceTimersByTimeAsync(PAUSE_MS + 50);
  keeper.change((paper) => ({ ...paper, note: 'b' }));
  const free = keeper.letGo();
  await vi.advanceTimersByTimeAsync(60_000);
  await free;
  expect(server.calls).toBe(1);
  expect(store.size).toBe(0);
});

describe('a reload at any moment, whatever becomes of what was on its way', () => {
  // Typed, paused, typed while it is on its way, answered: a reload after each of these instants, in milliseconds.
  const instants = [
    0,
    100,
    PAUSE_MS - 1,
    PAUSE_MS + 1,
    PAUSE_MS + 100,
    PAUSE_MS + 199,
    PAUSE_MS + 201,
    900,
    1500,
    3000,
  ];
  const fates: Fate[] = ['arrives', 'comes late', 'is lost'];
  const cases = instants.flatMap((at) =>
    fates.flatMap((fate) => [0, 250, 4000].map((rendered) => [at, fate, rendered] as const)),
  );
  test.each(cases)(
    'after %i ms, it %s, and the page comes %i ms later: nothing is asked, the words stand',
    async (at, fate, rendered) => {
      const server = new Server();
      const { keeper, store, page } = open(server);
      keeper.change(() => words('half'));
      setTimeout(() => page.alive && keeper.change(() => words('half a sentence')), PAUSE_MS + 120);
      await vi.advanceTimersByTimeAsync(at);
      const last = keeper.view().paper.note;
      page.fate = fate;
      keeper.leave();
      page.alive = false;
      await vi.advanceTimersByTimeAsync(rendered);
      const { keeper: next } = open(server, store);
      expect(next.takeUp()).toBeNull();
      expect(next.view().paper.note).toBe(last);
      next.change(({ note }) => words(`${note}.`));
      await vi.advanceTimersByTimeAsync(10_000);
      expect(next.view()).toMatchObject({ paper: { note: `${last}.` }, keeping: { state: 'kept' } });
      expect(server.note).toBe(`${last}.`);
      expect(store.size).toBe(0);
    },
  );
});

test('a page shown again from before the last words shows the last words', async () => {
  const server = new Server();
  const before = server.stands;
  const { keeper, store, known } = open(server);
  keeper.change(() => words('typed since'));
  await vi.advanceTimersByTimeAsync(2000);
  keeper.close();
  const now = server.stands;
  server.stands = before;
  const { keeper: again } = open(server, store, { known });
  server.stands = now;
  expect(again.view().paper.note).toBe('typed since');
  again.change(({ note }) => words(`${note}, and more`));
  await vi.advanceTimersByTimeAsync(2000);
  expect(server.note).toBe('typed since, and more');
});

test('two windows: the words of one are never lost under the other’s, and both are told', async () => {
  const server = new Server();
  const one = open(server);
  const two = open(server);
  one.keeper.change(() => words('one'));
  await vi.advanceTimersByTimeAsync(2000);
  two.keeper.change(() => words('two'));
  await vi.advanceTimersByTimeAsync(2000);
  expect(server.note).toBe('one');
  expect(two.keeper.view().keeping.state).toBe('here-only');
  const { keeper: next } = open(server, two.store);
  const restore = next.takeUp();
  expect(next.view().paper.note).toBe('one');
  restore?.();
  await vi.advanceTimersByTimeAsync(2000);
  expect(server.note).toBe('two');
});

const deed = fc.oneof(
  fc.string({ minLength: 1, maxLength: 5 }).map((note) => ({ kind: 'type' as const, note })),
  fc.integer({ min: 1, max: 2000 }).map((ms) => ({ kind: 'wait' as const, ms })),
  fc.boolean().map((reachable) => ({ kind: 'line' as const, reachable })),
  fc
    .record({
      fate: fc.constantFrom<Fate>('arrives', 'comes late', 'is lost'),
      rendered: fc.constantFrom(0, 300, 2500),
    })
    .map((how) => ({ kind: 'reload' as const, ...how })),
);

test('whatever happens on the way, the last words typed are shown and kept, nobody is asked, one save runs at a time', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(deed, { maxLength: 14 }), async (deeds) => {
      const server = new Server();
      const store = new TestMemory();
      let { keeper, page } = open(server, store);
      let last = '';
      for (const one of deeds) {
        if (one.kind === 'type') {
          last = one.note;
          keeper.change((paper) => ({ ...paper, note: one.note }));
        } else if (one.kind === 'wait') await vi.advanceTimersByTimeAsync(one.ms);
        else if (one.kind === 'line') server.reachable = one.reachable;
        else {
          page.fate = one.fate;
          keeper.leave();
          page.alive = false;
          await vi.advanceTimersByTimeAsync(one.rendered);
          ({ keeper, page } = open(server, store));
          expect(keeper.takeUp()).toBeNull();
          expect(keeper.view().paper.note).toBe(last);
        }
      }
      server.reachable = true;
      await vi.advanceTimersByTimeAsync(20_000);
      expect(server.note).toBe(last);
    }),
    { numRuns: 300 },
  );
});
