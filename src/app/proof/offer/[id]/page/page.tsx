import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { orNotFound } from '@/app/found';
import { pageActor } from '@/app/session';
import { wordsOf } from '@/core/words/words';
import { offerProof } from '@/flows/checkout/rehearse';
import { cardFieldsUrl } from '@/flows/invoice/payer-page';
import { Checkout } from '@/ui/checkout/checkout';
import { CheckoutFrame } from '@/ui/checkout/checkout-frame';
import { checkoutWords } from '@/ui/checkout/checkout-words';

export const metadata: Metadata = { title: 'Proof' };

type Asked = Readonly<Record<string, string | string[] | undefined>>;
const one = (value: string | string[] | undefined): string => (typeof value === 'string' ? value : '');

/** The checkout by the code that serves the payer; whatever is paid here is a rehearsal. */
export default async function OfferProofPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<Asked>;
}) {
  const actor = await pageActor();
  const { id } = await params;
  const asked = await searchParams;
  const acceptLanguage = (await headers()).get('accept-language') ?? '';
  const view = await orNotFound(
    id,
    offerProof(actor, id, { acceptLanguage, lang: one(asked.lang), currency: one(asked.currency) }),
  );
  const words = wordsOf(view.locale);
  return (
    <CheckoutFrame
      view={view}
      logo={view.logo ? `/files/own/${view.logo}` : null}
      languages={asked}
      notice={words.offer.rehearsal}
    >
      <Checkout
        path={`/api/rehearse/${id}`}
        done={`/proof/offer/${id}/done?of=`}
        offer={view}
        begun={view.begun}
        first={view.quote}
        request={null}
        locale={view.locale}
        passed={{}}
        fieldsUrl={cardFieldsUrl({ locale: view.locale })}
        words={checkoutWords(words)}
      />
    </CheckoutFrame>
  );
}
