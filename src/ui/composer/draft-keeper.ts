import type { Paper } from '@/core/paper/paper';
import type { Memory } from '../kit/memory';
import type { Answer } from '../kit/send';
import { Shown } from '../kit/shown';

/** How keeping stands: all kept, on its way, or only on this computer, with the reason. */
export type Keeping =
  | { readonly state: 'kept'; readonly at: Date | null }
  | { readonly state: 'keeping' }
  | { readonly state: 'here-only'; readonly words: string };

/** What is shown of a draft. */
export type DraftView = { readonly paper: Paper; readonly keeping: Keeping; readonly revision: number };

type Backup = { readonly paper: Paper; readonly revision: number };
type Kept = { readonly revision: number; readonly keptAt: string };

/** What a keeper reaches: the server, this computer's own memory, and whoever has the draft open. */
export type Reach = {
  readonly send: (paper: Paper, revision: number, last?: boolean) => Promise<Answer<Kept>>;
  readonly store: Memory;
  /** The draft was sent or thrown away elsewhere. */
  readonly onGone: (why: 'sent' | 'thrown-away') => void;
  /** Nothing is kept by itself: a sent invoice is changed, and only when the person says so. */
  readonly held: boolean;
};

export const PAUSE_MS = 500;
export const AGAIN_MS = 3000;
const backupName = (id: string): string => `dahlia:draft:${id}`;

/**
 * Keeps a draft: each change goes to this computer at once and to the server after a short pause, one save at a time; without a
 * connection it is tried again. What a reload or a crash left unsaved is taken up again.
 */
export class DraftKeeper extends Shown<DraftView> {
  #dirty = false;
  #saving: Promise<boolean> | null = null;
  #timer: ReturnType<typeof setTimeout> | undefined;
  readonly #opened: number;

  constructor(
    readonly id: string,
    paper: Paper,
    revision: number,
    readonly reach: Reach,
  ) {
    super({ paper, revision, keeping: { state: 'kept', at: null } });
    this.#opened = revision;
  }

  #later(milliseconds: number): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.save(), milliseconds);
  }

  readonly change = (edit: (paper: Paper) => Paper): void => {
    const paper = edit(this.view().paper);
    this.#dirty = true;
    this.show({ paper });
    if (this.reach.held) return;
    try {
      const backup: Backup = { paper, revision: this.view().revision };
      this.reach.store.setItem(backupName(this.id), JSON.stringify(backup));
    } catch {
      // Full or forbidden: the server still keeps it after the pause.
    }
    this.#later(PAUSE_MS);
  };

  /** Sends what stands now; true once the server has it. A save that is on its way is waited for. */
  async save(): Promise<boolean> {
    clearTimeout(this.#timer);
    if (this.#saving) {
      await this.#saving;
      if (!this.#dirty) return true;
    }
    this.#saving = this.#send();
    const done = await this.#saving;
    this.#saving = null;
    return done;
  }

  async #send(): Promise<boolean> {
    this.#dirty = false;
    this.show({ keeping: { state: 'keeping' } });
    const answer = await this.reach.send(this.view().paper, this.view().revision);
    if (answer.ok) {
      if (!this.#dirty) this.reach.store.removeItem(backupName(this.id));
      this.show({
        revision: answer.value.revision,
        keeping: { state: 'kept', at: new Date(answer.value.keptAt) },
      });
      return true;
    }
    this.#dirty = true;
    this.show({ keeping: { state: 'here-only', words: answer.words } });
    if (answer.code === 'draft-already-sent' || answer.code === 'not-found') {
      this.reach.store.removeItem(backupName(this.id));
      this.#dirty = false;
      this.reach.onGone(answer.code === 'draft-already-sent' ? 'sent' : 'thrown-away');
    } else if (answer.code === 'unreachable' || answer.code === 'trouble') this.#later(AGAIN_MS);
    return false;
  }

  /**
   * Takes up what was typed and not kept before the page was left.
   *
   * @returns what restores it, where somebody has kept something since and the person has to say; else null
   */
  takeUp(): (() => void) | null {
    if (this.reach.held) return null;
    const backup = this.#backup();
    if (!backup) return null;
    const restore = () => this.change(() => backup.paper);
    if (backup.revision !== this.#opened) return restore;
    restore();
    return null;
  }

  #backup(): Backup | null {
    try {
      return JSON.parse(this.reach.store.getItem(backupName(this.id)) ?? 'null') as Backup | null;
    } catch {
      return null;
    }
  }

  /** The connection is back. */
  readonly again = (): void => {
    if (this.#dirty && !this.reach.held) void this.save();
  };

  /** The page goes away now: its last breath, whose answer nobody reads. */
  readonly leave = (): void => {
    if (this.#dirty && !this.reach.held) void this.reach.send(this.view().paper, this.view().revision, true);
  };

  /** The page is left for another one. */
  close(): void {
    clearTimeout(this.#timer);
    if (this.#dirty && !this.reach.held) void this.save();
  }

  /**
   * The server has a later one than this window, and nothing is waiting here: kept by another window, or by this page's own last
   * breath before a reload that was answered with what stood before.
   */
  renew(paper: Paper, revision: number): void {
    if (revision <= this.view().revision || this.#dirty || this.#saving) return;
    this.show({ paper, revision });
  }

  /** Makes sure that the server has all of it. */
  readonly flush = (): Promise<boolean> => (this.#dirty || this.#saving ? this.save() : Promise.resolve(true));

  /** Lets go of what is not kept yet, and waits until nothing is on its way: the draft is about to be thrown away. */
  readonly letGo = async (): Promise<void> => {
    clearTimeout(this.#timer);
    this.#dirty = false;
    await this.#saving;
    clearTimeout(this.#timer);
    this.#dirty = false;
    this.reach.store.removeItem(backupName(this.id));
  };

  readonly latestRevision = (): number => this.view().revision;
}
