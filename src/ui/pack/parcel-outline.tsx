/** One pixel is 32 millimetres. */
const SCALE = 1 / 32;
const LEAST = 3;
const BOX = { width: 48, height: 30 };

const side = (millimetres: number, most: number): number =>
  Math.min(most, Math.max(LEAST, Math.round(millimetres * SCALE)));

/** A parcel from above, all at one scale: one sees what is large. Decoration; its name and weight stand beside it. */
export function ParcelOutline({ sides }: { sides: { readonly lengthMm: number; readonly widthMm: number } | null }) {
  const [width, height] = sides
    ? [
        side(Math.max(sides.lengthMm, sides.widthMm), BOX.width - 1),
        side(Math.min(sides.lengthMm, sides.widthMm), BOX.height - 1),
      ]
    : [0, 0];
  const y = (BOX.height - height) / 2 + 0.5;
  return (
    <svg
      width={BOX.width}
      height={BOX.height}
      viewBox={`0 0 ${BOX.width} ${BOX.height}`}
      aria-hidden="true"
      className="fill-rule stroke-soft"
    >
      {width > 0 ? (
        <>
          <rect x="0.5" y={y} width={width} height={height} rx={height <= 4 ? 1.5 : 0} />
          {height > 8 ? <path d={`M1 ${y + height / 2}h${width - 1}`} className="stroke-edge opacity-50" /> : null}
        </>
      ) : (
        <rect x="0.5" y="9.5" width="14" height="11" className="fill-none" strokeDasharray="3 2" />
      )}
    </svg>
  );
}
