import { csvText, sumCell } from './write';

/** What stands in a row of the file; decimals in the item's unit. */
export type StockFileRow = {
  readonly itemId: string;
  readonly optionId: string | null;
  readonly name: string;
  readonly option: string;
  readonly code: string;
  readonly shelf: string;
  readonly onHand: string;
  readonly promised: string;
  readonly available: string;
  readonly lies: string;
  readonly lowAt: string | null;
  readonly order: string;
};

/**
 * The stock as CSV. Its columns Code and On the shelf are those that a count reads back.
 *
 * @param costs by the id of the option, else of the item; null where they may not be seen
 */
export const stockCsv = (
  rows: readonly StockFileRow[],
  costs: Readonly<Record<string, { readonly average: string; readonly worthMinor: bigint | null }>> | null,
  currency: string,
): string =>
  csvText(
    [
      ...['Code', 'Item', 'Option', 'Shelf', 'On hand', 'Promised', 'Available', 'On the shelf', 'Low at', 'To order'],
      ...(costs ? ['Average cost', 'Worth', 'Currency'] : []),
    ],
    rows.map((row) => {
      const cost = costs?.[row.optionId ?? row.itemId];
      return [
        ...[row.code, row.name, row.option, row.shelf, row.onHand, row.promised, row.available, row.lies],
        ...[row.lowAt ?? '', row.order === '0' ? '' : row.order],
        ...(costs
          ? [cost?.average ?? '', cost?.worthMinor == null ? '' : sumCell(cost.worthMinor, currency), currency]
          : []),
      ];
    }),
  );
