/** Address, phone and the like on one line that breaks only between them; no dot hangs at the end of a line or begins one. */
export function ContactLine({ parts }: { parts: readonly string[] }) {
  return (
    <span className="small block overflow-hidden text-soft">
      {/* Every part has its dot before it; what begins a line has it in the margin, which is cut off. */}
      <span className="-ml-[1em] flex flex-wrap">
        {parts.filter(Boolean).map((part, at) => (
          <span key={part} className="whitespace-nowrap">
            <span className="inline-block w-[1em] text-center">{at > 0 ? ' · ' : ''}</span>
            {part}
          </span>
        ))}
      </span>
    </span>
  );
}
