import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { cache } from 'react';
import { acceptWords } from '@/app/accept-words';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { longDate } from '@/core/dates/date-text';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { wordsOf } from '@/core/words/words';
import { cardFieldsUrl } from '@/flows/invoice/payer-page';
import { planPage } from '@/flows/plan/plan-page';
import { CheckoutFrame } from '@/ui/checkout/checkout-frame';
import { AcceptChange } from '@/ui/plan/accept-change';
import { AcceptPlan } from '@/ui/plan/accept-plan';
import { SeenCharges } from '@/ui/plan/seen-charges';

type Props = { params: Promise<{ token: string }>; searchParams: Promise<{ lang?: string | string[] }> };

const view = cache(planPage);

const viewOf = async ({ params, searchParams }: Props) => {
  const { lang } = await searchParams;
  return view((await params).token, typeof lang === 'string' ? lang : '');
};

export async function generateMetadata(props: Props): Promise<Metadata> {
  const found = await viewOf(props);
  return found
    ? { title: { absolute: `${found.name} · ${found.seller.name}` }, referrer: 'same-origin', robots: 'noindex' }
    : { title: 'Not found' };
}

/** What a customer sees of a plan before it begins: every date and sum, what is agreed to, the card. */
export default async function AcceptPlanPage(props: Props) {
  const { token } = await props.params;
  const found = await viewOf(props);
  if (!found) notFound();
  const { locale, first } = found;
  const all = wordsOf(locale);
  const words = all.plan;
  const lines = found.lines.map(({ what, quantity }) => (quantity === '1' ? what : `${quantity} × ${what}`));
  const next = found.charges.find(({ minor }) => minor > 0);
  const firstSum = first ? moneyText(money(BigInt(first.minor), found.currency), locale) : '';
  const accept = (
    <AcceptPlan
      path={`/api/plan/${token}`}
      lang={locale.slice(0, 2)}
      agreement={found.agreement}
      fieldsUrl={cardFieldsUrl({ take: 'both', locale })}
      words={acceptWords(all)}
    />
  );
  return (
    <CheckoutFrame
      kept={token}
      logo={found.logo}
      languages={{}}
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
            accept
          ) : found.change ? (
            <>
              <p className="text-[15px]/6 text-soft">{words.wasSo}</p>
              <p className="mb-3 font-serif text-[16px]/6">{found.change.before}</p>
              <p className="text-[15px]/6 font-semibold">{words.willBeSo}</p>
              <p className="bg-wash px-4 py-3 font-serif text-[16px]/6">{found.change.after}</p>
              <p className="my-3 text-[15px]/6">{words.untilAgreed}</p>
              <AcceptChange path={`/api/plan/${token}/change`} words={acceptWords(all, words.agreeToChange)} />
            </>
          ) : first?.state === 'refused' && (found.state === 'active' || found.state === 'paused') ? (
            <>
              <p role="alert" className="mb-5 border border-brick px-3.5 py-2.5 text-[16px]/6">
                <b className="font-semibold text-brick">{words.firstRefused(firstSum)}</b> {words.otherCardHere}{' '}
                {first.link ? (
                  <a className="link" href={first.link}>
                    {words.payNow(firstSum)}
                  </a>
                ) : null}
              </p>
              {accept}
            </>
          ) : first?.state === 'under-way' && found.state === 'active' ? (
            <>
              {/* Asked about again by itself, also without a script. */}
              <meta httpEquiv="refresh" content="3" />
              <p role="status" className="border border-ochre px-3.5 py-2.5 text-[16px]/6">
                {words.firstUnderWay(firstSum)}
              </p>
            </>
          ) : found.state === 'active' || found.state === 'finished' ? (
            <div role="status">
              <p className="font-serif text-[21px]/7 font-medium text-leaf">{words.begun}</p>
              {first ? <p className="mt-2 text-[16px]/6">{words.firstPaid(firstSum)}</p> : null}
              {next && !first && found.state === 'active' ? (
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
