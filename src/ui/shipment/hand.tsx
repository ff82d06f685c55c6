/** Somebody's hand, as a drawing in a field of 100 × 40. */
export const Hand = ({ name, strokes }: { name: string; strokes: string }) =>
  strokes ? (
    <svg viewBox="0 0 100 40" role="img" aria-label={`Signature of ${name}`} className="private border-b border-ink">
      <path d={strokes} className="fill-none stroke-ink" strokeWidth="1.2" strokeLinejoin="round" />
    </svg>
  ) : null;
