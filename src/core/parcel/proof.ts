/** Who took a parcel, where and when (ISO 8601); `strokes` their hand as an SVG path in a field of 100 × 40, empty where none was drawn. */
export type DeliveryProof = {
  readonly name: string;
  readonly at: string;
  readonly place: string;
  readonly strokes: string;
};
