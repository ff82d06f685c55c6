/** A row of the stock as JSON: counts are plain decimals in the item's unit, costs are written; empty where they may not be seen. */
export type StockShown = {
  /** Of the option, else of the item. */
  readonly id: string;
  readonly itemId: string;
  readonly optionId: string | null;
  readonly name: string;
  readonly code: string;
  readonly unit: string;
  readonly shelf: string;
  readonly onHand: string;
  readonly promised: string;
  readonly available: string;
  /** What a hand finds on the shelf. */
  readonly lies: string;
  readonly lowAt: string;
  /** How much to order; empty where enough is there. */
  readonly order: string;
  readonly average: string;
  readonly worth: string;
};

/** Where a thing's sheet stands. */
export const stockHref = ({ itemId, optionId }: Pick<StockShown, 'itemId' | 'optionId'>): string =>
  `/deliver/stock/${itemId}${optionId ? `?option=${optionId}` : ''}`;
