/**
 * One writing of a draft: whose window it came from, and its place among that window's words. A page that is loaded anew is
 * another window, and says whose words it went on from.
 */
export type Writing = { readonly hand: string; readonly step: number };

/** How a draft stands: its revision, and the writing that made it so (null: none that says who it was). */
export type Standing = { readonly revision: number; readonly by: Writing | null };

/** What is to be kept: the revision it was read at, its own writing, and the one that it went on from. */
export type Following = Standing & { readonly after: Writing | null };

/**
 * Whether words may take the place of what stands. They may where nobody has kept anything since they were read, and where
 * what was kept since are earlier words of the same window, or of the one that it went on from: then only the answer was lost,
 * or came too late. Older words never take the place of later ones of the same window, whatever the order they arrive in.
 */
export function mayFollow(stands: Standing, words: Following): boolean {
  const { by } = stands;
  if (by && words.by?.hand === by.hand) return by.step < words.by.step;
  if (by && words.after?.hand === by.hand) return by.step <= words.after.step;
  return stands.revision === words.revision;
}

/** Whether these very words, or later ones of the same window, are what stands. */
export const hasArrived = ({ by }: Standing, words: Writing): boolean =>
  by?.hand === words.hand && by.step >= words.step;
