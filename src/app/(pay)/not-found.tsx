import { headers } from 'next/headers';
import { ASKED_PATH } from '@/app/addresses';
import { readerOf } from '@/core/words/reader';
import { wordsOf } from '@/core/words/words';
import { senderOf } from '@/flows/house/sender';

/** A link that opens nothing: mistyped, cut off by a mail program, or over. It leads to whoever sent it, never to the desk. */
export default async function NoSuchLink() {
  const asked = await headers();
  const token = asked.get(ASKED_PATH)?.split('/')[2] ?? '';
  const sender = await senderOf(token);
  const { locale } = readerOf(asked.get('accept-language') ?? '', '', sender ?? { paperLocale: 'en-US', country: '' });
  const words = wordsOf(locale);
  const { seller } = sender ?? {};
  return (
    <main className="mx-auto mt-[12vh] max-w-[560px] px-4" lang={locale.slice(0, 2)}>
      <div className="sheet p-5 sm:p-8">
        <h1 className="title-screen">{words.noSuchLink}</h1>
        <p className="mt-2 text-[15px]/[22px]">{seller ? words.noSuchLinkFrom(seller.name) : words.noSuchLinkText}</p>
        {seller ? (
          <p className="mt-4 flex flex-wrap gap-x-4 gap-y-1 text-[15px]/6">
            <span className="font-serif text-[16px]">{seller.name}</span>
            {seller.phone ? (
              <a className="link whitespace-nowrap" href={`tel:${seller.phone.replace(/[^+\d]/g, '')}`}>
                {seller.phone}
              </a>
            ) : null}
            <a className="link min-w-0 break-words" href={`mailto:${seller.email}`}>
              {seller.email}
            </a>
          </p>
        ) : null}
      </div>
    </main>
  );
}
