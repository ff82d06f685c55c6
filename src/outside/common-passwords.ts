/** Passwords that are tried first, from the registry's list; read once, when somebody first chooses one. */
let known: Promise<ReadonlySet<string>> | undefined;

async function read(): Promise<ReadonlySet<string>> {
  const { dictionary } = await import('@zxcvbn-ts/language-common');
  return new Set(Object.values(dictionary).flatMap((words) => words as readonly string[]));
}

/** Whether a text in small letters stands on it, as a whole. */
export async function commonPasswords(): Promise<(small: string) => boolean> {
  known ??= read();
  const words = await known;
  return (small) => words.has(small);
}
