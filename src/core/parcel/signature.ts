/** A point of a hand as the pad gives it. */
export type PadPoint = { readonly x: number; readonly y: number };

/** What a kept drawing may hold: lines in a field of 100 × 40, at most so many signs. */
export const STROKES = /^[ML0-9. ,-]{0,4000}$/;
const MOST_POINTS = 300;
const MOST_STROKES = 40;

/**
 * A hand as it is kept: a path in a field of 100 × 40, whatever the size of the pad; thinned out where there are more points than a path
 * can hold. Empty where nothing was drawn.
 *
 * @param strokes each from where the pen touched to where it left @param pad the pad's width and height in the same measure
 */
export function signaturePath(
  strokes: readonly (readonly PadPoint[])[],
  pad: { readonly width: number; readonly height: number },
): string {
  const drawn = strokes.filter((points) => points.length > 1);
  const count = drawn.reduce((sum, points) => sum + points.length, 0);
  if (count === 0 || pad.width <= 0 || pad.height <= 0) return '';
  const step = Math.max(1, Math.ceil(count / MOST_POINTS));
  const scale = Math.min(100 / pad.width, 40 / pad.height);
  const at = ({ x, y }: PadPoint): string => {
    const within = (value: number, most: number) => Math.min(most, Math.max(0, value * scale)).toFixed(1);
    return `${within(x, 100)} ${within(y, 40)}`;
  };
  return drawn
    .slice(0, MOST_STROKES)
    .map((points) => {
      const kept = points.filter((_, nth) => nth % step === 0 || nth === points.length - 1);
      return `M${kept.map(at).join(' L')}`;
    })
    .join('');
}
