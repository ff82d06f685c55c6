/** A list's rows while they are on their way. */
export function RowsSkeleton({ rows }: { rows: number }) {
  return (
    <div aria-busy="true">
      <span className="sr-only">Loading</span>
      {Array.from({ length: rows }, (_, at) => (
        <div key={at} className="flex h-[54px] items-center gap-3 border-b border-rule">
          <div className="skeleton size-6 rounded-full" />
          <div className="flex-1">
            <div className="skeleton h-3.5" style={{ width: `${48 + ((at * 17) % 30)}%` }} />
            <div className="skeleton mt-2 h-2.5 w-1/3" />
          </div>
          <div className="skeleton h-3.5 w-16" />
        </div>
      ))}
    </div>
  );
}
