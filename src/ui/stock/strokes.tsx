/** At most so many strokes stand in a row; above that one stands for ten, or a hundred. */
const MOST_STROKES = 40;
const STEP = 4;
const HEIGHT = 16;

/** Where the stroke of a number stands: in fives, as one keeps a tally by hand. */
const place = (at: number): number => at * STEP + Math.floor(at / 5) * 3;

/**
 * What there is, as a tally: full strokes for what is free, hollow ones for what is promised, brick ones for what was sold and is not
 * there; the mark at which it runs low stands below. Decoration with sense: the figures stand beside it.
 */
export function Strokes({ onHand, promised, lowAt }: { onHand: number; promised: number; lowAt: number | null }) {
  const most = Math.max(Math.abs(onHand), lowAt ?? 0, 1);
  const each = most <= MOST_STROKES ? 1 : 10 ** Math.ceil(Math.log10(most / MOST_STROKES));
  const strokes = (count: number): number => Math.min(MOST_STROKES, Math.ceil(Math.max(0, count) / each));
  const there = strokes(onHand);
  const free = strokes(onHand - promised);
  const short = strokes(-onHand);
  const mark = lowAt === null ? null : Math.min(MOST_STROKES, Math.round(lowAt / each));
  const width = place(Math.max(there, short, mark ?? 0, 1)) + 2;
  return (
    <svg width={width} height={HEIGHT + 5} aria-hidden="true" className="block max-w-full overflow-visible">
      {Array.from({ length: Math.max(there, short) }, (_, at) => {
        const x = place(at);
        const look = short > 0 ? 'fill-brick' : at < free ? 'fill-ink-soft' : 'fill-none stroke-ink-soft';
        return <rect key={x} x={x + 0.5} y={0.5} width={1.6} height={HEIGHT - 1} strokeWidth={0.8} className={look} />;
      })}
      {mark === null || mark === 0 ? null : (
        <path d={`M${place(mark - 1) - 1} ${HEIGHT + 4.5}h5l-2.5 -3.5z`} className="fill-ochre" />
      )}
    </svg>
  );
}
