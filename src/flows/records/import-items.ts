/** Items from a spreadsheet: every row checked before any is written; what is there already stays as it is. */
import { randomUUID } from 'node:crypto';
import type { ColumnsAs, ImportResult } from '@/core/import/columns';
import { type ItemField, importedItem } from '@/core/item/import-rows';
import { type Item, itemProblems } from '@/core/item/item';
import { decimalSignOf } from '@/core/money/typed';
import { businessById } from '@/db/businesses';
import { insertItem, itemsKnownAs } from '@/db/items';
import type { Db } from '@/db/pool';
import { taxesOf } from '@/db/taxes';
import { desk } from '@/flows/door/operation';
import { keepStock } from '@/flows/stock/keep-stock';

type Rows = readonly (readonly string[])[];

async function checked(
  db: Db,
  rows: Rows,
  mapping: ColumnsAs<ItemField>,
): Promise<{ fresh: Item[]; refused: ImportResult['refused'] }> {
  const { currency, deskLocale: locale } = await businessById(db);
  const classes = [...new Set((await taxesOf(db)).map((tax) => tax.class))];
  const read = rows.map((cells) => importedItem(cells, mapping, { currency, sign: decimalSignOf(locale), classes }));
  const codes = read.flatMap((row) => (row.ok && row.value.code ? [row.value.code.toLowerCase()] : []));
  const names = read.flatMap((row) => (row.ok && !row.value.code ? [row.value.name.toLowerCase()] : []));
  const known = await itemsKnownAs(db, codes, names);
  const fresh: Item[] = [];
  const refused: { at: number; reasons: readonly string[] }[] = [];
  const seen = new Set<string>();
  for (const [at, row] of read.entries()) {
    if (!row.ok) {
      refused.push({ at, reasons: row.reasons });
      continue;
    }
    const item: Item = { id: randomUUID(), ...row.value };
    const who = item.code ? `code ${item.code.toLowerCase()}` : `name ${item.name.toLowerCase()}`;
    const problems = itemProblems(item).map(({ words }) => words);
    if (known.has(who))
      refused.push({
        at,
        reasons: [item.code ? 'An item with this code is there' : 'An item with this name is there'],
      });
    else if (seen.has(who)) refused.push({ at, reasons: ['An earlier row of this file is the same item'] });
    else if (problems.length > 0) refused.push({ at, reasons: problems });
    else fresh.push(item);
    seen.add(who);
  }
  return { fresh, refused };
}

/** Reads every row and says which would be refused and why; writes nothing. */
export const checkItems = desk('records').read(
  async (db, rows: Rows, mapping: ColumnsAs<ItemField>): Promise<ImportResult> => {
    const { fresh, refused } = await checked(db, rows, mapping);
    return { written: fresh.length, updated: 0, refused };
  },
);

/** Writes the rows that are good, all of a part or none. Sent twice, its items are there the second time. */
export const importItems = desk('records').turn(
  async (tx, rows: Rows, mapping: ColumnsAs<ItemField>): Promise<ImportResult> => {
    const { fresh, refused } = await checked(tx, rows, mapping);
    for (const item of fresh) await insertItem(tx, item);
    await keepStock(tx, fresh);
    return { written: fresh.length, updated: 0, refused };
  },
);
