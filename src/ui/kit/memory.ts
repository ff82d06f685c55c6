/** What a browser remembers under names. */
export type Memory = Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>;

// Asked for when it is used: on the server there is none, and a browser may forbid it or have no room.
function quiet<Result>(work: () => Result, otherwise: Result): Result {
  try {
    return work();
  } catch {
    return otherwise;
  }
}

const memory = (of: () => Storage): Memory => ({
  getItem: (name) => quiet(() => of().getItem(name), null),
  setItem: (name, value) => quiet(() => of().setItem(name, value), undefined),
  removeItem: (name) => quiet(() => of().removeItem(name), undefined),
});

/** What this computer remembers. Where it remembers nothing, nothing else is lost. */
export const computerMemory = memory(() => localStorage);

/** What this window remembers until it is closed. */
export const windowMemory = memory(() => sessionStorage);
