import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { isLanguage, localeFor, wordsOf } from '@/core/words/words';
import { keptPage } from '@/flows/keeping/keeping-rule';
import { CheckoutFrame } from '@/ui/checkout/checkout-frame';

export const metadata: Metadata = { title: 'What is kept', referrer: 'same-origin', robots: 'noindex' };

type Props = { params: Promise<{ token: string }>; searchParams: Promise<{ lang?: string | string[] }> };

/** What a business keeps of its customers, why and how long, in the reader's language. */
export default async function KeptPage({ params, searchParams }: Props) {
  const { token } = await params;
  const found = await keptPage(token);
  if (!found) notFound();
  const { lang } = await searchParams;
  const { rule, seller } = found;
  const locale = localeFor(typeof lang === 'string' && isLanguage(lang) ? lang : '', found.locale, '');
  const words = wordsOf(locale).keeping;
  const rows = [
    [words.papers, words.papersWhy, words.papersLong(rule.paperYears)],
    [words.contact, words.contactWhy, words.contactLong],
    [words.cards, words.cardsWhy, words.cardsLong],
    [words.checkouts, words.checkoutsWhy, words.days(rule.checkoutDays)],
    [words.mails, words.mailsWhy, words.months(rule.mailMonths)],
  ] as const;
  return (
    <CheckoutFrame
      logo={found.logo}
      languages={{}}
      view={{
        locale,
        title: words.title,
        description: words.lead(seller.name),
        seller,
        accent: found.accent,
        request: null,
      }}
    >
      <div className="px-5 pb-9 sm:px-11">
        <table className="w-full border-t border-ink text-left text-[15px]/[22px]">
          <thead className="sr-only sm:not-sr-only">
            <tr>
              {[words.what, words.why, words.howLong].map((heading) => (
                <th key={heading} scope="col" className="py-2 pr-6 text-[13.5px] font-normal text-soft">
                  {heading}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(([what, why, howLong]) => (
              <tr key={what} className="grid border-t border-rule py-3 align-top sm:table-row sm:py-0">
                <th scope="row" className="font-serif text-[16px]/[23px] font-medium sm:w-[40%] sm:py-3 sm:pr-6">
                  {what}
                </th>
                <td className="text-soft sm:w-[34%] sm:py-3 sm:pr-6">{why}</td>
                <td className="font-medium sm:py-3">{howLong}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <div className="mt-6 grid max-w-[64ch] gap-3 text-[15px]/[23px]">
          <p>{words.erased}</p>
          <p>{words.backups}</p>
          <p>{words.rights}</p>
          {seller.email ? (
            <p>
              <a className="link" href={`mailto:${seller.email}`}>
                {words.ask(seller.name)}
              </a>
            </p>
          ) : null}
        </div>
      </div>
    </CheckoutFrame>
  );
}
