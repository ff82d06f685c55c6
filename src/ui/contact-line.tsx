/** Address, phone and the like on one line that breaks only between them. */
export function ContactLine({ parts }: { parts: readonly string[] }) {
  return (
    <span className="small text-soft">
      {parts.filter(Boolean).map((part, at) => (
        <span key={part}>
          {at > 0 ? ' · ' : ''}
          <span className="whitespace-nowrap">{part}</span>
        </span>
      ))}
    </span>
  );
}
