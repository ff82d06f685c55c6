const HALF = 62;

/**
 * Short hangs to the left of a hairline, over to the right, with the signed figure always beside it.
 *
 * @param left minor units; null where it is not known
 * @param most the largest on the paper, by which all are drawn
 */
export function BalanceBar({ left, most, text }: { left: number | null; most: number; text: string }) {
  const width =
    left === null ? 0 : Math.max(left === 0 ? 0 : 2, Math.round((Math.abs(left) / Math.max(1, most)) * HALF));
  return (
    <span className="relative block h-full">
      <span aria-hidden="true" className="absolute -bottom-px top-0 left-[66px] w-px bg-edge opacity-70" />
      {left !== null && left !== 0 ? (
        <span
          aria-hidden="true"
          className={`absolute top-[14px] h-[9px] ${left < 0 ? 'bg-ochre' : 'bg-leaf'}`}
          style={left < 0 ? { right: `calc(100% - 66px)`, width } : { left: 67, width }}
        />
      ) : null}
      <span
        className={`absolute right-0 top-[9px] font-serif text-[15px]/5 font-medium ${left === null ? 'text-soft' : left < 0 ? 'text-ochre' : 'text-leaf'}`}
      >
        {text}
      </span>
    </span>
  );
}
