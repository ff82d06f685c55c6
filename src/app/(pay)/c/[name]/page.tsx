import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { notFound, redirect } from 'next/navigation';
import { cache } from 'react';
import { passedThrough } from '@/core/offer/passed';
import { wordsOf } from '@/core/words/words';
import { checkoutPage } from '@/flows/checkout/checkout-page';
import { cardFieldsUrl } from '@/flows/invoice/payer-page';
import { Checkout } from '@/ui/checkout/checkout';
import { CheckoutFrame } from '@/ui/checkout/checkout-frame';
import { checkoutWords } from '@/ui/checkout/checkout-words';

type Asked = Readonly<Record<string, string | string[] | undefined>>;
type Props = { params: Promise<{ name: string }>; searchParams: Promise<Asked> };

const one = (value: string | string[] | undefined): string => (typeof value === 'string' ? value : '');

const view = cache(async (name: string, address: string) => {
  const acceptLanguage = (await headers()).get('accept-language') ?? '';
  const asked = Object.fromEntries(new URLSearchParams(address));
  const { lang = '', currency = '', for: request = '' } = asked;
  return checkoutPage(name, { acceptLanguage, lang, currency, request, preset: presetOf(asked) });
});

/** What a hosted page's form says, by the names of its fields; few, and short. */
const presetOf = (asked: Readonly<Record<string, string>>): Record<string, string> =>
  Object.fromEntries(
    Object.entries(asked)
      .filter(([name]) => /^(amount|own|purpose|[qoa]_[0-9a-f-]{36})$/.test(name))
      .slice(0, 150),
  );

const viewOf = async ({ params, searchParams }: Props) => {
  const { name } = await params;
  const asked = Object.entries(await searchParams).map(([key, value]) => [key, one(value)] as [string, string]);
  // One text, so that the page and its title ask once.
  return view(name, new URLSearchParams(asked).toString());
};

export async function generateMetadata(props: Props): Promise<Metadata> {
  const found = await viewOf(props);
  return found
    ? {
        title: { absolute: `${found.title} · ${found.seller.name}` },
        referrer: 'same-origin',
        ...(found.description ? { description: found.description.slice(0, 300) } : {}),
        // What chats show of the link.
        openGraph: {
          title: found.title,
          siteName: found.seller.name,
          ...(found.picture ? { images: [`${found.address}/picture`] } : {}),
        },
      }
    : { title: 'Not found' };
}

/** The checkout of an offer, wherever it is placed. */
export default async function CheckoutPage(props: Props) {
  const found = await viewOf(props);
  if (!found) notFound();
  const { name } = await props.params;
  const searchParams = await props.searchParams;
  // An address that it had before, perhaps in print, leads on to the one it has.
  if (name !== found.called && name !== found.publicId) {
    const asked = new URLSearchParams(Object.entries(searchParams).map(([key, value]) => [key, one(value)]));
    redirect(`/c/${found.called}${asked.size > 0 ? `?${asked}` : ''}`);
  }
  const words = wordsOf(found.locale);
  const framed = one((await props.searchParams).framed) === 'yes';
  const { request } = found;
  const ended =
    request?.state === 'withdrawn'
      ? words.offer.requestEnded
      : request?.state === 'paid'
        ? words.offer.requestPaid
        : found.notOpen
          ? words.offer.notOpen[found.notOpen]
          : null;
  return (
    <CheckoutFrame
      kept={found.called}
      view={found}
      logo={found.logo ? `/c/${found.called}/logo` : null}
      picture={found.picture ? `/c/${found.called}/picture` : null}
      languages={await props.searchParams}
    >
      {found.turnedBack ? (
        <p className="px-5 pb-3 sm:px-11">
          <a className="link text-[15px]" href={found.turnedBack} target={framed ? '_top' : undefined}>
            {words.offer.turnBack}
          </a>
        </p>
      ) : null}
      {ended ? (
        <p className="px-5 pb-10 pt-3 font-serif text-[19px]/7 sm:px-11" role="status">
          {ended}
        </p>
      ) : (
        <Checkout
          path={`/api/checkout/${found.called}`}
          framed={framed}
          done="/o/"
          offer={found}
          begun={found.begun}
          first={found.quote}
          request={request}
          locale={found.locale}
          passed={passedThrough(await props.searchParams)}
          fieldsUrl={cardFieldsUrl({ framed, locale: found.locale })}
          words={checkoutWords(words)}
        />
      )}
    </CheckoutFrame>
  );
}
