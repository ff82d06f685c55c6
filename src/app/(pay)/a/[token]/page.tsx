import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { cache } from 'react';
import { acceptWords } from '@/app/accept-words';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { longDate } from '@/core/dates/date-text';
import { isLanguage, localeFor, wordsOf } from '@/core/words/words';
import { cardFieldsUrl } from '@/flows/invoice/payer-page';
import { planPage } from '@/flows/plan/plan-page';
import { CheckoutFrame } from '@/ui/checkout/checkout-frame';
import { AcceptPlan } from '@/ui/plan/accept-plan';
import { SeenCharges } from '@/ui/plan/seen-charges';

type Props = { params: Promise<{ token: string }>; searchParams: Promise<{ lang?: string | string[] }> };

const view = cache(planPage);

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const found = await view((await params).token);
  return found
    ? { title: { absolute: `${found.name} · ${found.seller.name}` }, referrer: 'same-origin', robots: 'noindex' }
    : { title: 'Not found' };
}

/** What a customer sees of a plan before it begins: every date and sum, what is agreed to, the card. */
export default async function AcceptPlanPage({ params, searchParams }: Props) {
  const { token } = await params;
  const found = await view(token);
  if (!found) notFound();
  const { lang } = await searchParams;
  const asked = typeof lang === 'string' && isLanguage(lang) ? lang : '';
  const locale = localeFor(asked, found.locale, '');
  const all = wordsOf(locale);
  const words = all.plan;
  const lines = found.lines.map(({ what, quantity }) => (quantity === '1' ? what : `${quantity} × ${what}`));
  const next = found.charges.find(({ minor }) => minor > 0);
  return (
    <CheckoutFrame
      logo={found.logo}
      languages
      view={{
        locale,
        title: found.name,
        description: lines.length === 1 && lines[0] === found.name ? '' : lines.join('\n'),
        seller: found.seller,
        accent: found.accent,
        request: { toName: found.payer },
      }}
    >
      <div className="grid gap-8 px-5 pb-9 sm:px-11 lg:grid-cols-2">
        <SeenCharges
          charges={found.charges}
          endless={found.endless}
          totalMinor={found.totalMinor}
          currency={found.currency}
          locale={locale}
          words={words}
        />
        <div>
          {found.state === 'waiting' ? (
            <AcceptPlan
              path={`/api/plan/${token}`}
              agreement={found.agreement}
              fieldsUrl={cardFieldsUrl()}
              words={acceptWords(all)}
            />
          ) : found.state === 'active' || found.state === 'finished' ? (
            <div role="status">
              <p className="font-serif text-[21px]/7 font-medium text-leaf">{words.begun}</p>
              {next && found.state === 'active' ? (
                <p className="mt-2 text-[16px]/6">
                  {words.firstCharge(longDate(next.chargedOn as CalendarDate, locale))}
                </p>
              ) : null}
            </div>
          ) : (
            <p role="status" className="text-[16px]/6">
              {words.ended}
            </p>
          )}
        </div>
      </div>
    </CheckoutFrame>
  );
}
