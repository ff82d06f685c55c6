import type { GivenShown } from '@/core/digital/shown';
import { wordsOf } from '@/core/words/words';

/** What somebody bought as a file or a text: to be read and fetched, within its limits. Works without a script. */
export function GivenPart({ things, path, locale }: { things: readonly GivenShown[]; path: string; locale: string }) {
  if (things.length === 0) return null;
  const { digital: words } = wordsOf(locale);
  return (
    <section className="mt-6" aria-label={words.heading}>
      <h2 className="font-serif text-[17px] font-semibold">{words.heading}</h2>
      <ul>
        {things.map(({ id, what, words: text, file, state, left, until }) => (
          <li key={id} className="grid gap-2 border-b border-rule py-3 text-[15px]/[22px]">
            <b className="break-words font-semibold">{what}</b>
            {text ? <p className="whitespace-pre-wrap break-words font-serif text-[16px]/6">{text}</p> : null}
            {state === 'over' ? <span className="text-ochre">{words.over}</span> : null}
            {state === 'used-up' ? <span className="text-ochre">{words.usedUp}</span> : null}
            {file && state === 'open' ? (
              <form
                method="post"
                action={`${path}/given/${id}`}
                className="flex flex-wrap items-center gap-x-4 gap-y-1"
              >
                <button type="submit" className="btn btn-tall">
                  {words.download}
                </button>
                <span className="min-w-0 break-words text-[14px] text-soft">
                  {[file, left === null ? '' : words.left(left), until ? words.until(until) : '']
                    .filter(Boolean)
                    .join(' · ')}
                </span>
              </form>
            ) : null}
          </li>
        ))}
      </ul>
    </section>
  );
}
