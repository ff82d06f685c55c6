import { Refusal } from './refusal';

/** What became of each: how many were done, and why the others were not. */
export type ManyResult = {
  readonly done: number;
  readonly refused: readonly { readonly id: string; readonly words: string }[];
};

/** Does it for each by itself; a refusal leaves that one out and the others go on. */
export async function each(ids: readonly string[], work: (id: string) => Promise<void>): Promise<ManyResult> {
  const refused: { id: string; words: string }[] = [];
  for (const id of ids) {
    try {
      await work(id);
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      refused.push({ id, words: error.words });
    }
  }
  return { done: ids.length - refused.length, refused };
}
