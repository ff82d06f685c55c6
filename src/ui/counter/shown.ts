/** A sale of which something waits at the counter. */
export type CounterRowShown = {
  readonly id: string;
  readonly name: string;
  readonly phone: string;
  readonly wish: string;
  readonly sale: string;
  readonly since: string;
  readonly lines: readonly { readonly line: number; readonly what: string; readonly left: string }[];
};
