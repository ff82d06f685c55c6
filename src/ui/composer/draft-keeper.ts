import type { Following, Writing } from '@/core/paper/kept-by';
import type { Paper } from '@/core/paper/paper';
import type { Memory } from '../kit/memory';
import type { Answer } from '../kit/send';
import { Shown } from '../kit/shown';
import {
  arrived,
  type Backup,
  backupOf,
  type DraftState,
  isWaiting,
  type Keeping,
  type Kept,
  leaving,
  letGone,
  opened,
  renewed,
  takingUp,
  turnedBack,
  typed,
  wentOn,
  writingOf,
} from './draft-state';

export type { Keeping } from './draft-state';

/** What is shown of a draft. */
export type DraftView = { readonly paper: Paper; readonly keeping: Keeping; readonly revision: number };

/** What goes to the server: the paper, and whose words they are. */
export type DraftToKeep = Following & { readonly paper: Paper };

/** What a keeper reaches: the server, this computer's own memory, and whoever has the draft open. */
export type Reach = {
  readonly send: (draft: DraftToKeep, last?: boolean) => Promise<Answer<{ revision: number; keptAt: string }>>;
  readonly store: Memory;
  /** What the server is known to have, by draft, as long as the page lives: a page shown again may be older than that. */
  readonly known: Map<string, Kept>;
  /** The draft was sent or thrown away elsewhere. */
  readonly onGone: (why: 'sent' | 'thrown-away') => void;
  /** Nothing is kept by itself: a sent invoice is changed, and only when the person says so. */
  readonly held: boolean;
};

export const PAUSE_MS = 500;
export const AGAIN_MS = 3000;
const backupName = (id: string): string => `dahlia:draft:${id}`;

const viewOf = ({ paper, keeping, stands }: DraftState): DraftView => ({ paper, keeping, revision: stands.revision });

/**
 * Keeps a draft: each change goes to this computer at once and to the server after a short pause, one save at a time; without a
 * connection it is tried again. What a reload or a crash left unsaved is taken up again. What may happen is `draft-state.ts`;
 * here are its clocks, the line and the memory.
 */
export class DraftKeeper extends Shown<DraftView> {
  #state: DraftState;
  #saving: Promise<boolean> | null = null;
  #timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    readonly id: string,
    page: Kept,
    hand: string,
    readonly reach: Reach,
  ) {
    const known = reach.held ? undefined : reach.known.get(id);
    const state = opened(known && known.revision > page.revision ? known : page, hand);
    super(viewOf(state));
    this.#state = state;
  }

  #to(state: DraftState): void {
    this.#state = state;
    this.show(viewOf(state));
  }

  #later(milliseconds: number): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.save(), milliseconds);
  }

  /** Keeps on this computer what the server does not have yet; the same words under the same writing as they go there. */
  #keepHere(): void {
    if (this.reach.held) return;
    // Full or forbidden: the server still keeps it after the pause.
    this.reach.store.setItem(backupName(this.id), JSON.stringify(backupOf(this.#state)));
    this.#later(PAUSE_MS);
  }

  /** Forgets what this computer holds, unless it is another window's or has been typed since. */
  #forget({ hand, step }: Writing): void {
    const by = this.#backup()?.by;
    if (by && by.hand === hand && by.step <= step) this.reach.store.removeItem(backupName(this.id));
  }

  readonly change = (edit: (paper: Paper) => Paper): void => {
    this.#to(typed(this.#state, edit(this.#state.paper)));
    this.#keepHere();
  };

  /** Sends what stands now; true once the server has it. A save that is on its way is waited for. */
  async save(): Promise<boolean> {
    clearTimeout(this.#timer);
    while (this.#saving) await this.#saving;
    if (!isWaiting(this.#state)) return true;
    this.#saving = this.#send();
    const done = await this.#saving;
    this.#saving = null;
    return done;
  }

  async #send(): Promise<boolean> {
    this.#to(leaving(this.#state));
    const writing = writingOf(this.#state);
    const answer = await this.reach.send(backupOf(this.#state));
    if (answer.ok) {
      this.#forget(writing);
      if (this.#state.after) this.#forget(this.#state.after);
      this.#to(arrived(this.#state, answer.value.revision, new Date(answer.value.keptAt)));
      const { paper, stands } = this.#state;
      if (!isWaiting(this.#state)) this.reach.known.set(this.id, { paper, ...stands });
      return true;
    }
    const sent = answer.code === 'draft-already-sent';
    const gone = sent || answer.code === 'not-found';
    this.#to(turnedBack(this.#state, answer.words, gone));
    if (gone) {
      this.#away();
      this.reach.onGone(sent ? 'sent' : 'thrown-away');
    } else if (answer.code === 'unreachable' || answer.code === 'trouble') this.#later(AGAIN_MS);
    return false;
  }

  #away(): void {
    clearTimeout(this.#timer);
    this.reach.store.removeItem(backupName(this.id));
    this.reach.known.delete(this.id);
  }

  /**
   * Takes up what was typed and not kept before the page was left.
   *
   * @returns what restores it, where somebody else has kept something since and the person has to say; else null
   */
  takeUp(): (() => void) | null {
    if (this.reach.held) return null;
    const backup = this.#backup();
    const what = takingUp(this.#state, backup);
    if (!backup || what === 'nothing') return null;
    if (what === 'drop') {
      this.reach.store.removeItem(backupName(this.id));
      return null;
    }
    const goOn = () => {
      this.#to(wentOn(this.#state, backup));
      this.#keepHere();
    };
    if (what === 'ask') return goOn;
    goOn();
    return null;
  }

  #backup(): Backup | null {
    try {
      const backup = JSON.parse(this.reach.store.getItem(backupName(this.id)) ?? 'null') as Backup | null;
      return backup?.by && backup.paper ? backup : null;
    } catch {
      return null;
    }
  }

  /** The connection is back. */
  readonly again = (): void => {
    if (isWaiting(this.#state) && !this.reach.held) void this.save();
  };

  /** The page goes away now: its last breath, whose answer nobody reads. */
  readonly leave = (): void => {
    if (isWaiting(this.#state) && !this.reach.held) void this.reach.send(backupOf(this.#state), true);
  };

  /** The page is left for another one. */
  close(): void {
    clearTimeout(this.#timer);
    if (isWaiting(this.#state) && !this.reach.held) void this.save();
  }

  /** The server has a later one than this window: kept by another window, or by this page's own last breath before a reload. */
  renew(page: Kept): void {
    this.#to(renewed(this.#state, page));
  }

  /** Makes sure that the server has all of it. */
  readonly flush = (): Promise<boolean> =>
    isWaiting(this.#state) || this.#saving ? this.save() : Promise.resolve(true);

  /** Lets go of what is not kept yet, and waits until nothing is on its way: the draft is about to be thrown away. */
  readonly letGo = async (): Promise<void> => {
    clearTimeout(this.#timer);
    this.#to(letGone(this.#state));
    await this.#saving;
    this.#to(letGone(this.#state));
    this.#away();
  };

  readonly latestRevision = (): number => this.#state.stands.revision;
}
