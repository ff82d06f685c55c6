import { type Following, hasArrived, mayFollow, type Standing, type Writing } from '@/core/paper/kept-by';
import type { Paper } from '@/core/paper/paper';

/** How keeping stands: all kept, on its way, or only on this computer, with the reason. */
export type Keeping =
  | { readonly state: 'kept'; readonly at: Date | null }
  | { readonly state: 'keeping' }
  | { readonly state: 'here-only'; readonly words: string };

/** A draft as the server has it. */
export type Kept = Standing & { readonly paper: Paper };

/** What this computer holds of words that the server has not confirmed. */
export type Backup = Following & { readonly by: Writing; readonly paper: Paper };

/**
 * A draft in a window. `written` and `kept` count this window's changes: those typed, and those that the server has. `sent` are
 * those that are on their way now (null: nothing is).
 */
export type DraftState = {
  readonly paper: Paper;
  readonly stands: Standing;
  readonly hand: string;
  readonly after: Writing | null;
  readonly written: number;
  readonly kept: number;
  readonly sent: number | null;
  readonly keeping: Keeping;
};

/** A draft as a window opens it. @param hand this window's own name, never used before */
export const opened = ({ paper, revision, by }: Kept, hand: string): DraftState => ({
  paper,
  stands: { revision, by },
  hand,
  after: null,
  written: 0,
  kept: 0,
  sent: null,
  keeping: { state: 'kept', at: null },
});

/** Whether something waits to be kept. */
export const isWaiting = ({ written, kept }: DraftState): boolean => written > kept;

/** The writing that a window's words are at. */
export const writingOf = ({ hand, written }: DraftState): Writing => ({ hand, step: written });

/** What is to be kept as it stands now, for this computer and for the server alike. */
export const backupOf = (state: DraftState): Backup => ({
  paper: state.paper,
  revision: state.stands.revision,
  by: writingOf(state),
  after: state.after,
});

/** Somebody typed. */
export const typed = (state: DraftState, paper: Paper): DraftState => ({ ...state, paper, written: state.written + 1 });

/** What stands is on its way to the server. */
export const leaving = (state: DraftState): DraftState => ({
  ...state,
  sent: state.written,
  keeping: { state: 'keeping' },
});

/** The server has what was on its way. */
export const arrived = (state: DraftState, revision: number, at: Date): DraftState => ({
  ...state,
  sent: null,
  kept: Math.max(state.kept, state.sent ?? 0),
  stands: { revision, by: { hand: state.hand, step: state.sent ?? 0 } },
  keeping: { state: 'kept', at },
});

/** The server has not taken it, or has not answered; `gone`: there is nothing left to keep it in. */
export const turnedBack = (state: DraftState, words: string, gone: boolean): DraftState => ({
  ...state,
  sent: null,
  kept: gone ? state.written : state.kept,
  keeping: { state: 'here-only', words },
});

/** What was typed so far is not to be kept: the draft is about to be discarded. */
export const letGone = (state: DraftState): DraftState => ({ ...state, kept: state.written });

/** A later version of the server's is shown, where nothing waits here or is on its way. */
export const renewed = (state: DraftState, { paper, revision, by }: Kept): DraftState =>
  revision <= state.stands.revision || isWaiting(state) || state.sent !== null
    ? state
    : { ...state, paper, stands: { revision, by } };

/** What is done with the words that this computer still holds when a draft is opened. */
export type TakingUp = 'nothing' | 'drop' | 'go-on' | 'ask';

/** They have arrived meanwhile; or one goes on with them; or somebody else kept something since, and the person has to say. */
export function takingUp(state: DraftState, backup: Backup | null): TakingUp {
  if (!backup) return 'nothing';
  if (hasArrived(state.stands, backup.by)) return 'drop';
  return mayFollow(state.stands, backup) ? 'go-on' : 'ask';
}

/** This computer's words, gone on with. */
export const wentOn = (state: DraftState, backup: Backup): DraftState => ({
  ...typed(state, backup.paper),
  after: backup.by,
});
