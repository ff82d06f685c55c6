import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import type { ReactNode } from 'react';
import { shortDate } from '@/core/dates/date-text';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { afterMonth, partLabel } from '@/core/payout/paper';
import { returnWords } from '@/core/payout/return-reasons';
import { wordsOf } from '@/core/words/words';
import { partnerPage } from '@/flows/payout/partner-page';
import { CheckoutFrame } from '@/ui/checkout/checkout-frame';
import { OwnAction } from '@/ui/own/own-actions';
import { PartnerAccounts } from '@/ui/payout/partner-accounts';

export const metadata: Metadata = { title: 'Your part', referrer: 'same-origin', robots: 'noindex' };

const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <section aria-label={title}>
    <h2 className="border-b border-ink pb-1 font-serif text-[19px]/7 font-semibold">{title}</h2>
    {children}
  </section>
);

const STATES = {
  made: 'on its way',
  sent: 'on its way',
  arrived: 'arrived',
  returned: 'came back',
  'given-up': 'paid by hand',
} as const;

/** A partner's own page: what is to come, what was paid out, of which payments, and the account to which it goes. */
export default async function PartnerPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const found = await partnerPage(token);
  if (!found) notFound();
  const { locale, months, payouts } = found;
  const sum = (minor: bigint, currency: string) => moneyText(money(minor, currency), locale);
  const day = (on: Parameters<typeof shortDate>[0]) => shortDate(on, locale, { weekday: true, year: true });
  const shown = months.filter((month) => month.movements.length > 0 || afterMonth(month) !== 0n);
  return (
    <CheckoutFrame
      logo={found.logo}
      languages={false}
      view={{
        locale,
        title: 'Your part',
        description: found.over ? 'This link is over. A new one is sent to the address that is on file.' : found.name,
        seller: found.seller,
        accent: found.accent,
        request: null,
      }}
    >
      {found.over ? (
        <div className="px-5 pb-9 sm:px-11">
          <OwnAction
            troubles={wordsOf(locale).troubles}
            path={`/api/partner/${token}/link`}
            body={{}}
            words="Send me a new link"
            done="It is on its way to the address on file."
          />
        </div>
      ) : (
        <div className="grid grid-cols-1 gap-x-10 gap-y-8 px-5 pb-9 sm:px-11 lg:grid-cols-2">
          <div className="grid grid-cols-1 content-start gap-8">
            {shown.length === 0 ? (
              <p className="document">
                Nothing has come to you yet. Your parts of payments show here from the first on.
              </p>
            ) : null}
            {shown.map((month) => (
              <Part key={month.currency} title={`Your parts: ${sum(afterMonth(month), month.currency)} still to come`}>
                <ul>
                  {[...month.movements].reverse().map((one) => (
                    <li key={one.id} className="flex items-baseline gap-4 border-b border-rule py-2 text-[15px]">
                      <span className="w-[104px] flex-none text-soft">
                        {shortDate(one.day, locale, { weekday: true })}
                      </span>
                      <span className="min-w-0 flex-1">
                        {partLabel(one)}
                        {one.ofMinor > 0n ? (
                          <span className="block text-[13px] text-soft">of {sum(one.ofMinor, one.currency)}</span>
                        ) : null}
                      </span>
                      <span className="whitespace-nowrap font-serif">{sum(one.minor, one.currency)}</span>
                    </li>
                  ))}
                </ul>
                {month.beforeMinor !== 0n ? (
                  <p className="pt-2 text-[14px] text-soft">
                    And {sum(month.beforeMinor, month.currency)} from before{' '}
                    {shortDate(month.from, locale, { year: true })}.
                  </p>
                ) : null}
              </Part>
            ))}
            <p>
              <a className="link" href={`/files/partner/${token}`}>
                The last three months as CSV
              </a>
            </p>
          </div>
          <div className="grid grid-cols-1 content-start gap-8">
            <Part title="Paid out to you">
              {payouts.length === 0 ? <p className="py-2 text-soft">Nothing yet.</p> : null}
              <ul>
                {payouts.map((payout) => (
                  <li key={payout.id} className="flex items-baseline gap-4 border-b border-rule py-2 text-[15px]">
                    <span className="w-[132px] flex-none">{day(payout.settledOn ?? payout.madeOn)}</span>
                    <span className={`min-w-0 flex-1 ${payout.state === 'returned' ? 'text-brick' : 'text-soft'}`}>
                      {STATES[payout.state]}
                      {payout.state === 'returned' ? `: ${returnWords(payout.reason)}` : ''}
                    </span>
                    <span className="whitespace-nowrap font-serif">{sum(payout.amountMinor, payout.currency)}</span>
                  </li>
                ))}
              </ul>
            </Part>
            <Part title="Your account">
              <PartnerAccounts
                token={token}
                accounts={found.accounts.map(({ id, currency, number, state, reason }) => ({
                  id,
                  currency,
                  ending: number.slice(-4),
                  state,
                  why: reason === 'credits' ? 'other sums were typed three times' : returnWords(reason),
                }))}
                currencies={[...new Set([found.currency, ...months.map(({ currency }) => currency)])]}
                currency={found.currency}
              />
            </Part>
          </div>
        </div>
      )}
    </CheckoutFrame>
  );
}
