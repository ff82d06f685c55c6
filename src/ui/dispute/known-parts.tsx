import type { ReactNode } from 'react';
import { ALWAYS_IN, type FilePart, holdsSomething, NOTHING_OF, PART_TITLES } from '@/core/dispute/payment-file';

/** How much a part holds, in a few words. */
function holds({ key, rows, papers }: FilePart): string {
  const [first] = rows;
  if (key === 'added') return papers.map(({ name }) => name).join(', ');
  if (key === 'payment' || key === 'sold' || key === 'receipt' || key === 'terms' || key === 'delivery')
    return first ? first[1] : '';
  return rows.length === 1 ? 'one entry' : `${rows.length} entries`;
}

/**
 * What is known of a payment, part by part; each opens to what it says.
 *
 * @param before what stands before a part that may be left out, while it still may; what is missing is then said too
 */
export function KnownParts({
  parts,
  leftOut,
  before,
}: {
  parts: readonly FilePart[];
  leftOut: readonly string[];
  before?: (part: FilePart) => ReactNode;
}) {
  const known = parts.filter(holdsSomething);
  const missing = parts.flatMap((part) => (holdsSomething(part) ? [] : NOTHING_OF[part.key] || []));
  return (
    <section className="mt-5" aria-label="What the file holds">
      <h2 className="title-section border-b border-ink pb-1">What the file holds</h2>
      <ul>
        {known.map((part) => (
          <li key={part.key} className="flex items-start gap-3 border-b border-rule py-1.5">
            {before ? <span className="grid w-5 shrink-0 place-items-center pt-0.5">{before(part)}</span> : null}
            <details className="min-w-0 flex-1">
              <summary
                className={`cursor-pointer ${leftOut.includes(part.key) && !ALWAYS_IN.includes(part.key) ? 'text-soft line-through' : ''}`}
              >
                <span className="font-serif text-[15.5px] font-medium">{PART_TITLES[part.key]}</span>{' '}
                <span className="small text-soft">{holds(part)}</span>
              </summary>
              <dl className="small mt-1.5 grid gap-x-4 gap-y-1 pb-1.5 sm:grid-cols-[minmax(120px,190px)_minmax(0,1fr)]">
                {part.rows.map(([what, text], at) => (
                  <div key={at} className="contents">
                    <dt className="text-soft">{what}</dt>
                    <dd className="private whitespace-pre-line break-words">{text}</dd>
                  </div>
                ))}
              </dl>
              {part.texts.map((text, at) => (
                <p
                  key={at}
                  className="small max-h-[180px] overflow-y-auto whitespace-pre-line border-l border-rule pl-3"
                >
                  {text}
                </p>
              ))}
              {part.papers.length > 0 && part.key !== 'added' ? (
                <p className="small pb-1 text-soft">Goes along: {part.papers.map(({ name }) => name).join(', ')}</p>
              ) : null}
            </details>
          </li>
        ))}
      </ul>
      {before && missing.length > 0 ? <p className="small mt-2 text-soft">{missing.join(' ')}</p> : null}
    </section>
  );
}
