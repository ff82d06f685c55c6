import type { VoucherWords } from './en';

type Problems = VoucherWords['problems'];

/** The same for where a problem may name sums; these name none. */
export const asProblems = (problems: Problems) =>
  Object.fromEntries(Object.entries(problems).map(([code, text]) => [code, () => text])) as {
    readonly [Code in keyof Problems]: () => string;
  };
