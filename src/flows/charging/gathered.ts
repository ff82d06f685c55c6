/**
 * Gathers what comes in one by one and hands it on in sets, one set after the other. What comes in while a set is being dealt with
 * is the next set, so sets grow by themselves where dealing with one takes long.
 *
 * @param most no set is larger
 * @param heldMs nothing is held back for longer than so many milliseconds while no set is being dealt with
 */
export function gathered<One>(most: number, heldMs: number, handOn: (set: readonly One[]) => Promise<void>) {
  const waiting: One[] = [];
  let timer: NodeJS.Timeout | null = null;
  let working: Promise<void> | null = null;
  let failed: { readonly error: unknown } | null = null;
  const work = async (): Promise<void> => {
    do
      try {
        await handOn(waiting.splice(0, most));
      } catch (error) {
        failed ??= { error };
      }
    while (waiting.length >= most);
    working = null;
    if (waiting.length > 0) timer = setTimeout(begin, heldMs);
  };
  const begin = (): void => {
    if (timer) clearTimeout(timer);
    timer = null;
    if (waiting.length > 0) working ??= work();
  };
  return {
    add(one: One): void {
      waiting.push(one);
      if (waiting.length >= most) begin();
      else if (!working) timer ??= setTimeout(begin, heldMs);
    },
    /** Waits until no more than one set is left to be dealt with: whoever brings more waits here first. */
    async room(): Promise<void> {
      while (waiting.length > most) await working;
    },
    /** Hands on what is left and waits until all is dealt with. @throws whatever a set threw first */
    async rest(): Promise<void> {
      for (begin(); working; begin()) await working;
      if (failed) throw failed.error;
    },
  };
}
