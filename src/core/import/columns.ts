/** Columns of a table that is brought in: what each is, and what stands in a row under it. */

/** For each column of the file the field it fills, or null where it is left out. */
export type ColumnsAs<Field extends string> = readonly (Field | null)[];

/** The likely meaning of each column by its heading; each field is given once, to the first column that fits. */
export function guessedColumns<Field extends string>(
  headings: readonly string[],
  usual: Readonly<Record<Field, RegExp>>,
): ColumnsAs<Field> {
  const taken = new Set<Field>();
  return headings.map((heading) => {
    const fitting = (Object.keys(usual) as Field[]).find(
      (field) => !taken.has(field) && usual[field].test(heading.trim()),
    );
    if (fitting) taken.add(fitting);
    return fitting ?? null;
  });
}

/** What stands under a field in a row; a leading apostrophe is how spreadsheets keep text from being a formula. */
export const cellOf =
  <Field extends string>(cells: readonly string[], mapping: ColumnsAs<Field>) =>
  (field: Field): string => {
    const at = mapping.indexOf(field);
    return at < 0 ? '' : (cells[at] ?? '').trim().replace(/^'(?=[=+\-@])/, '');
  };

/** A row as read: what it is, or why it cannot be that. */
export type RowRead<Value> =
  | { readonly ok: true; readonly value: Value }
  | { readonly ok: false; readonly reasons: readonly string[] };

/**
 * What became of the rows of a part: how many are (or would be) added, how many customers on file updated, and why the others are
 * not, by their position.
 */
export type ImportResult = {
  readonly written: number;
  readonly updated: number;
  readonly refused: readonly { readonly at: number; readonly reasons: readonly string[] }[];
};
