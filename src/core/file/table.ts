/** A row of a file that cannot be read: its line, counted from 1, as it stands there, and what is wrong with it. */
export type BrokenRow = { readonly line: number; readonly raw: string; readonly words: string };

/** A file's rows below their headings, each with the line it begins on, and the rows that cannot be read. */
export type Table = {
  readonly headings: readonly string[];
  readonly rows: readonly (readonly string[])[];
  readonly lines: readonly number[];
  readonly broken: readonly BrokenRow[];
};
