/** A sale of which something waits at the counter. */
export type CounterRowShown = {
  readonly id: string;
  readonly name: string;
  readonly phone: string;
  readonly wish: string;
  readonly sale: string;
  readonly since: string;
  /** When they were told that it is ready; empty where they were not. */
  readonly told: string;
  readonly canTell: boolean;
  readonly lines: readonly { readonly line: number; readonly what: string; readonly left: string }[];
};
