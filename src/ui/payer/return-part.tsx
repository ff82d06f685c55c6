import type { ReturnState } from '@/core/parcel/returning';
import { wordsOf } from '@/core/words/words';
import { AskBack } from './ask-back-form';
import type { Troubles } from './trouble-words';

export type ReturnShown = {
  readonly lines: readonly { readonly line: number; readonly what: string; readonly most: string }[];
  readonly returns: readonly {
    readonly id: string;
    readonly state: ReturnState;
    readonly answer: string;
    readonly papers: 'none' | 'label' | 'form';
    readonly lines: readonly { readonly what: string; readonly quantity: string }[];
  }[];
};

const COLOUR: Readonly<Record<ReturnState, string>> = {
  asked: 'text-ochre',
  allowed: 'text-leaf',
  refused: 'text-brick',
  received: 'text-leaf',
  closed: 'text-soft',
};

/** What somebody sends back: how that stands, and a form for more of it, folded in. */
export function ReturnPart({
  page,
  path,
  locale,
  troubles,
}: {
  page: ReturnShown;
  /** The address of the sale's page. */
  path: string;
  locale: string;
  troubles: Troubles;
}) {
  const { subject: _, ...words } = wordsOf(locale).returning;
  if (page.lines.length + page.returns.length === 0) return null;
  return (
    <section className="mt-6" aria-label={words.heading}>
      {page.returns.length > 0 ? (
        <>
          <h2 className="font-serif text-[17px] font-semibold">{words.heading}</h2>
          <ul>
            {page.returns.map(({ id, state, answer, papers, lines }) => (
              <li key={id} className="border-b border-rule py-2.5 text-[15px]/[22px]">
                <b className={`font-semibold ${COLOUR[state]}`}>{words.states[state]}</b>
                <span className="block text-[14px] text-soft">
                  {lines.map(({ what, quantity }) => (quantity === '1' ? what : `${what}, ${quantity}`)).join('; ')}
                </span>
                {answer ? <span className="block break-words font-serif">{answer}</span> : null}
                {papers !== 'none' ? (
                  <span className="block">
                    <a className="link" href={`${path}/return/${id}/label`}>
                      {words.label}
                    </a>{' '}
                    <span className="text-[14px] text-soft">
                      {papers === 'form' ? `${words.labelHow} ${words.formHow}` : words.labelHow}
                    </span>
                  </span>
                ) : null}
              </li>
            ))}
          </ul>
        </>
      ) : null}
      {page.lines.length > 0 ? <AskBack lines={page.lines} path={path} words={words} troubles={troubles} /> : null}
    </section>
  );
}
