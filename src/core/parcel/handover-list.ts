/** What is handed over to the carrier together. Grams as they stand on the labels. */
export type HandoverList = {
  readonly house: string;
  readonly title: string;
  readonly locale: string;
  /** What all of it comes to, in words. */
  readonly sum: string;
  readonly rows: readonly {
    readonly number: string;
    readonly name: string;
    readonly where: string;
    readonly service: string;
    readonly weight: string;
  }[];
};

/** How much is handed over: so many parcels of so many grams. */
export const handedOverSum = (grams: readonly number[]): { readonly count: number; readonly grams: number } => ({
  count: grams.length,
  grams: grams.reduce((sum, one) => sum + one, 0),
});
