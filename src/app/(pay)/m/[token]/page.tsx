import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { type ReactNode } from 'react';
import { acceptWords } from '@/app/accept-words';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { heldText } from '@/core/plan/shown-card';
import { isLanguage, localeFor, wordsOf } from '@/core/words/words';
import { cardFieldsUrl } from '@/flows/invoice/payer-page';
import { ownPage } from '@/flows/plan/own-page';
import { CheckoutFrame } from '@/ui/checkout/checkout-frame';
import { OwnAction, OwnAddress } from '@/ui/own/own-actions';
import { AcceptPlan } from '@/ui/plan/accept-plan';

export const metadata: Metadata = { title: 'Your cards and plans', referrer: 'same-origin', robots: 'noindex' };

type Props = { params: Promise<{ token: string }>; searchParams: Promise<{ lang?: string | string[] }> };

const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <section aria-label={title}>
    <h2 className="border-b border-ink pb-1 font-serif text-[19px]/7 font-semibold">{title}</h2>
    {children}
  </section>
);

/** A customer's own page: cards, plans, what comes, receipts, address. */
export default async function OwnPage({ params, searchParams }: Props) {
  const { token } = await params;
  const found = await ownPage(token);
  if (!found) notFound();
  const { lang } = await searchParams;
  const locale = localeFor(typeof lang === 'string' && isLanguage(lang) ? lang : '', found.locale, '');
  const all = wordsOf(locale);
  const words = all.plan;
  const path = `/api/own/${token}`;
  const sum = (minor: number, currency: string) => moneyText(money(BigInt(minor), currency), locale);
  const day = (on: string) => shortDate(on as CalendarDate, locale, { weekday: true, year: true });
  return (
    <CheckoutFrame
      kept={token}
      logo={found.logo}
      languages={{}}
      view={{
        locale,
        title: words.ownPage,
        description: found.over ? words.linkOver : found.name,
        seller: found.seller,
        accent: found.accent,
        request: null,
      }}
    >
      {found.over ? (
        <div className="px-5 pb-9 sm:px-11">
          <OwnAction troubles={all.troubles} path={`${path}/link`} body={{}} words={words.sendNew} done={words.sent} />
        </div>
      ) : (
        <div className="grid grid-cols-1 gap-x-10 gap-y-8 px-5 pb-9 sm:px-11 lg:grid-cols-2">
          <div className="grid grid-cols-1 content-start gap-8">
            {found.open.map((charge) => (
              <p
                key={charge.id}
                className={`border px-4 py-3 text-[15px]/6 ${charge.payBy ? 'border-edge' : 'border-brick'}`}
                role={charge.payBy ? undefined : 'alert'}
              >
                <b className={`font-semibold ${charge.payBy ? '' : 'text-brick'}`}>{charge.what}</b>:{' '}
                {charge.payBy
                  ? words.partSubject(sum(charge.minor, charge.currency), day(charge.payBy))
                  : words.refusedWords}{' '}
                {charge.link ? (
                  <a className="link" href={charge.link}>
                    {words.payNow(sum(charge.minor, charge.currency))}
                  </a>
                ) : null}
              </p>
            ))}
            <Part title={words.plans}>
              {found.plans.length === 0 ? <p className="py-2 text-soft">{words.noPlans}</p> : null}
              <ul>
                {found.plans.map((plan) => (
                  <li key={plan.id} className="border-b border-rule py-3">
                    <p className="font-serif text-[17px]/6 font-medium">{plan.name}</p>
                    <p className="text-[14.5px] text-soft">
                      {plan.state === 'draft' ? '' : words.states[plan.state]}
                      {plan.nextOn ? `, ${words.next(day(plan.nextOn))}` : ''}
                    </p>
                    {plan.byCard && (plan.state === 'active' || plan.state === 'paused') ? (
                      <div className="mt-2">
                        <OwnAction
                          troubles={all.troubles}
                          path={path}
                          body={{ action: 'withdraw', planId: plan.id }}
                          words={words.withdraw}
                          sure={words.withdrawSure}
                        />
                      </div>
                    ) : null}
                  </li>
                ))}
              </ul>
            </Part>
            <Part title={words.coming}>
              <ul>
                {found.coming.map((charge) => (
                  <li key={charge.id} className="flex items-baseline gap-4 border-b border-rule py-2 text-[15px]">
                    <span className="w-[118px] flex-none sm:w-[150px]">{day(charge.on)}</span>
                    <span className="min-w-0 flex-1 truncate text-soft">{charge.what}</span>
                    <span className="font-serif">{sum(charge.minor, charge.currency)}</span>
                  </li>
                ))}
              </ul>
            </Part>
            <Part title={words.receipts}>
              <ul>
                {found.receipts.map((receipt) => (
                  <li key={receipt.number} className="flex items-baseline gap-4 border-b border-rule py-2 text-[15px]">
                    <span className="w-[118px] flex-none sm:w-[150px]">{day(receipt.on)}</span>
                    <a className="link flex-1" href={receipt.link}>
                      {all.receipt} {receipt.number}
                    </a>
                    <span className="font-serif">{sum(receipt.minor, receipt.currency)}</span>
                  </li>
                ))}
              </ul>
            </Part>
          </div>
          <div className="grid grid-cols-1 content-start gap-8">
            <Part title={words.cards}>
              {found.cards.length === 0 ? <p className="py-2 text-soft">{words.noCards}</p> : null}
              <ol>
                {found.cards.map((card) => (
                  <li key={card.id} className="flex flex-wrap items-center gap-3 border-b border-rule py-2 text-[15px]">
                    <span className="flex-1">
                      {heldText(card, locale, words)}
                      {card.state === 'refusing' ? (
                        <b className="block font-medium text-brick">{words.refusing}</b>
                      ) : null}
                    </span>
                    <OwnAction
                      troubles={all.troubles}
                      path={path}
                      body={{ action: 'remove', cardId: card.id }}
                      words={words.takeAway}
                      sure={
                        found.needing.length > 0 ? words.takeAwayNeeded(found.needing.join(', ')) : words.takeAwaySure
                      }
                    />
                  </li>
                ))}
              </ol>
            </Part>
            <Part title={words.addCard}>
              <p className="py-2 text-[14.5px] text-soft">
                {words.addCardText}
                {found.atOnce.length > 0 ? (
                  <b className="mt-1 block font-semibold text-ink">
                    {words.chargedAtOnce(found.atOnce.map((one) => sum(one.minor, one.currency)).join(' + '))}
                  </b>
                ) : null}
              </p>
              <AcceptPlan
                path={path}
                action="card"
                agreement={found.agreement}
                fieldsUrl={cardFieldsUrl({ take: 'both', locale })}
                words={acceptWords(all, words.keepIt)}
              />
            </Part>
            <Part title={words.address}>
              <div className="pt-3">
                <OwnAddress
                  troubles={all.troubles}
                  path={path}
                  first={found.address}
                  words={{
                    street: all.offer.street,
                    city: all.offer.city,
                    postalCode: all.offer.postalCode,
                    keep: words.keepAddress,
                    kept: words.kept,
                  }}
                />
              </div>
            </Part>
            <Part title={all.keeping.yours}>
              <p className="py-2 text-[14.5px] text-soft">{all.keeping.yoursText}</p>
              <a className="btn inline-grid min-h-11 place-items-center" href={`/m/${token}/data`} download>
                {all.keeping.takeAlong}
              </a>
            </Part>
          </div>
        </div>
      )}
    </CheckoutFrame>
  );
}
