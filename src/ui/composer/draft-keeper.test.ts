import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { completePaper, type Paper } from '@/core/paper/paper';
import { TestMemory } from '../../../tests/support/memory';
import type { Answer } from '../kit/send';
import { AGAIN_MS, DraftKeeper, PAUSE_MS } from './draft-keeper';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

const words = (note: string): Paper => completePaper({ note });

/** Keeps a draft as the server does: each writing names the revision that it read, and answers after a while. */
class Server {
  revision = 1;
  paper = words('');
  reachable = true;
  gone: 'draft-already-sent' | 'not-found' | null = null;
  calls = 0;
  under = 0;
  most = 0;

  async send(paper: Paper, revision: number): Promise<Answer<{ revision: number; keptAt: string }>> {
    this.calls++;
    this.most = Math.max(this.most, ++this.under);
    await new Promise((resolve) => setTimeout(resolve, 200));
    this.under--;
    const no = (code: string) => ({ ok: false, code, words: code, fields: [] }) as const;
    if (!this.reachable) return no('unreachable');
    if (this.gone) return no(this.gone);
    if (revision !== this.revision) return no('draft-changed-elsewhere');
    this.paper = paper;
    this.revision++;
    return { ok: true, value: { revision: this.revision, keptAt: '2026-11-27T10:00:00Z' } };
  }
}

function open(server: Server, store = new TestMemory(), held = false) {
  const gone: string[] = [];
  // A page that was reloaded sends nothing more, whatever its timers do.
  const page = { alive: true };
  const reach = {
    send: (paper: Paper, revision: number) =>
      page.alive ? server.send(paper, revision) : new Promise<never>(() => {}),
    store,
    onGone: (why: string) => gone.push(why),
    held,
  };
  return { keeper: new DraftKeeper('d', server.paper, server.revision, reach), store, gone, page };
}

test('what is typed in one go is kept once, after a breath', async () => {
  const server = new Server();
  const { keeper, store } = open(server);
  for (const note of ['a', 'ab', 'abc']) keeper.change((paper) => ({ ...paper, note }));
  expect(store.size).toBe(1);
  await vi.advanceTimersByTimeAsync(PAUSE_MS + 300);
  expect(server).toMatchObject({ calls: 1, paper: { note: 'abc' } });
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
  expect(server).toMatchObject({ calls: 2, most: 1, paper: { note: 'second' } });
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
  expect(server.paper.note).toBe('kept here');
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
    server.paper = words('theirs');
    server.revision = 5;
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
  server.paper = words('theirs');
  server.revision = 2;
  keeper.change((paper) => ({ ...paper, note: 'mine' }));
  await vi.advanceTimersByTimeAsync(60_000);
  expect(keeper.view().keeping).toMatchObject({ state: 'here-only' });
  expect(server).toMatchObject({ calls: 1, paper: { note: 'theirs' } });
  expect(store.size).toBe(1);
});

test('another window’s version is shown while nothing waits here, and only then', () => {
  const server = new Server();
  const { keeper } = open(server);
  keeper.renew(words('theirs'), 3);
  expect(keeper.view()).toMatchObject({ revision: 3, paper: { note: 'theirs' } });
  keeper.change((paper) => ({ ...paper, note: 'mine' }));
  keeper.renew(words('later'), 4);
  expect(keeper.view()).toMatchObject({ revision: 3, paper: { note: 'mine' } });
});

test('a sent invoice that is changed keeps nothing by itself, not even when it is left', async () => {
  const server = new Server();
  const { keeper, store } = open(server, new TestMemory(), true);
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

const deed = fc.oneof(
  fc.string({ minLength: 1, maxLength: 5 }).map((note) => ({ kind: 'type' as const, note })),
  fc.integer({ min: 1, max: 2000 }).map((ms) => ({ kind: 'wait' as const, ms })),
  fc.boolean().map((reachable) => ({ kind: 'line' as const, reachable })),
  fc.constant({ kind: 'reload' as const }),
);

test('whatever happens on the way, the last words typed are the words kept, and one save runs at a time', async () => {
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
          // The page's last breath, and what is on its way, arrive all the same.
          keeper.leave();
          page.alive = false;
          await vi.advanceTimersByTimeAsync(300);
          ({ keeper, page } = open(server, store));
          keeper.takeUp()?.();
        }
      }
      server.reachable = true;
      await vi.advanceTimersByTimeAsync(20_000);
      expect(server.paper.note).toBe(last);
      expect(server.most).toBeLessThanOrEqual(1);
    }),
    { numRuns: 150 },
  );
});
