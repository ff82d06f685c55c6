/** Showing once more who one is: whoever sends something is told by its answer, and a dialog that stands around the screen asks. */

type Asker = () => Promise<boolean>;
let asker: Asker | null = null;

/** The dialog that asks, while it stands there. @returns takes it away */
export function asksAgain(ask: Asker): () => void {
  asker = ask;
  return () => {
    if (asker === ask) asker = null;
  };
}

/** Whether somebody has just shown who they are; false where they left it, or nobody can ask. */
export const shownAgain = (): Promise<boolean> => asker?.() ?? Promise.resolve(false);
