import type { ReactNode } from 'react';
import type { Seller } from '@/core/invoice/printed';
import { LANGUAGES, wordsOf } from '@/core/words/words';
import { ContactLine } from '../contact-line';
import { KeptLink } from '../keeping/kept-link';

/** The same page in another language: its words change, and nothing else. */
function inLanguage(asked: Readonly<Record<string, string | string[] | undefined>>, code: string): string {
  const kept = Object.entries(asked).flatMap(([name, value]) =>
    typeof value === 'string' && name !== 'lang' ? [[name, value]] : [],
  );
  return `?${new URLSearchParams([...kept, ['lang', code]]).toString()}`;
}

/** What stands around every page of an offer: who sells, what it is about, how they are reached, the languages. */
export function CheckoutFrame({
  view,
  logo,
  picture = null,
  languages,
  notice,
  kept,
  children,
}: {
  view: {
    readonly locale: string;
    readonly title: string;
    readonly description: string;
    readonly seller: Seller;
    readonly accent: string;
    readonly request: { readonly toName: string } | null;
  };
  /** The address of the business's picture. */
  logo: string | null;
  /** The address of a picture of the offer's own. */
  picture?: string | null;
  /** What the page's address says beside the language, kept where another is chosen; false where there is only one. */
  languages: Readonly<Record<string, string | string[] | undefined>> | false;
  notice?: string;
  /** The part of the page's address by which it is told what is kept; none where that is not said. */
  kept?: string;
  children: ReactNode;
}) {
  const { seller, locale } = view;
  const words = wordsOf(locale);
  return (
    <div data-setting="day" className="min-h-dvh bg-desk text-ink" lang={locale.slice(0, 2)}>
      <main className="mx-auto max-w-[1080px] px-3 pb-16 pt-4 sm:px-5 sm:pb-10 sm:pt-8">
        {notice ? (
          <p role="status" className="mb-3 border border-dusk bg-dusk-tint px-4 py-2 text-[15px]">
            {notice}
          </p>
        ) : null}
        <div className="rounded-paper border border-rule bg-sheet shadow-lift">
          <header className="px-5 pt-6 sm:px-11 sm:pt-7">
            <div className="flex flex-wrap items-baseline justify-between gap-x-4 border-b-[4px] border-double border-ink pb-2">
              {logo ? (
                // biome-ignore lint/performance/noImgElement: a small picture of the business's own
                <img src={logo} alt={seller.name} className="h-10 w-auto" />
              ) : (
                <b className="font-serif text-[17px]/6 font-semibold" style={{ color: view.accent }}>
                  {seller.name}
                </b>
              )}
              <ContactLine parts={[...seller.address, seller.phone]} />
            </div>
            {picture ? (
              // biome-ignore lint/performance/noImgElement: a picture of the business's own, at most 800 wide
              <img src={picture} alt="" className="mt-4 max-h-[320px] max-w-full rounded-paper" />
            ) : null}
            <h1 className="mt-5 break-words font-serif text-[30px]/[34px] font-medium sm:text-[35px]/[40px]">
              {view.title}
            </h1>
            {view.request ? (
              <p className="mt-1 text-[15px] text-soft">{words.offer.filledFor(view.request.toName)}</p>
            ) : null}
            {view.description ? (
              <p className="mt-2 max-w-[62ch] whitespace-pre-line font-serif text-[17px]/[25px]">{view.description}</p>
            ) : null}
          </header>
          <div className="mt-5">{children}</div>
          <footer className="border-t border-rule px-5 py-4 text-center font-serif text-[15px]/[22px] italic">
            {seller.name}
            {seller.phone ? <span className="whitespace-nowrap"> · {seller.phone}</span> : null} ·{' '}
            <a className="underline decoration-edge underline-offset-3" href={`mailto:${seller.email}`}>
              {seller.email}
            </a>
            {kept ? <KeptLink token={kept} words={words} /> : null}
          </footer>
        </div>
        {languages ? (
          <nav aria-label={words.language} className="mt-4 flex justify-center gap-5 text-[14px]">
            {Object.entries(LANGUAGES).map(([code, { name }]) => (
              <a
                key={code}
                href={inLanguage(languages, code)}
                lang={code}
                hrefLang={code}
                aria-current={locale.startsWith(code) ? 'true' : undefined}
                className={`inline-grid min-h-11 items-center ${locale.startsWith(code) ? 'font-semibold' : 'underline underline-offset-3'}`}
              >
                {name}
              </a>
            ))}
          </nav>
        ) : null}
      </main>
    </div>
  );
}
