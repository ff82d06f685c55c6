import type { Route } from 'next';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { pageActor } from '@/app/session';
import { shortDate } from '@/core/dates/date-text';
import { jsonMinor } from '@/core/money/money';
import { whenWords } from '@/core/payout/policy';
import { type PayoutList, payoutList } from '@/flows/payout/payout-list';
import { Amount } from '@/ui/kit/amount';
import { Empty } from '@/ui/kit/empty';
import { Leader } from '@/ui/kit/leader';
import { ListAndSheet } from '@/ui/list/list-and-sheet';
import { ListGroups } from '@/ui/list/list-group';
import { MoneyTabs } from '../money-tabs';
import { jsonGathering, jsonPayout } from './json-payout';

/** When and to where money goes, and the way to change it. */
function Heading({ list: { business, policy, accounts } }: { list: PayoutList }) {
  const own = accounts.filter(({ partnerId, state }) => partnerId === null && state === 'checked');
  const to = own.map(({ number }) => `·${number.slice(-4)}`).join(', ');
  return (
    <p className="flex items-baseline gap-3 pb-1 pt-4">
      <b className="min-w-0 flex-1 text-[12.5px]/5 font-semibold">
        {whenWords(policy.when, business.deskLocale)}
        {to ? `, to ${to}` : ''}
      </b>
      <Link className="link" href={'/money/payouts/accounts' as Route}>
        {to ? 'Change' : 'Give an account'}
      </Link>
    </p>
  );
}

/** What the processor holds back now, and what comes free next. */
function Held({ list: { business, held, terms } }: { list: PayoutList }) {
  const { deskLocale: locale } = business;
  const currencies = [...new Set(held.map(({ currency }) => currency))];
  if (currencies.length === 0) return null;
  return (
    <div className="document mt-4 pr-3">
      {currencies.map((currency) => {
        const own = held.filter((one) => one.currency === currency);
        const [next] = own;
        return (
          <div key={currency}>
            <Leader label="Held back now">
              <Amount
                minor={jsonMinor(own.reduce((sum, { minor }) => sum + minor, 0n))}
                currency={currency}
                locale={locale}
              />
            </Leader>
            {next ? (
              <Leader label={`Free from ${shortDate(next.until, locale, { weekday: true })}`} className="text-dusk">
                <Amount minor={jsonMinor(next.minor)} currency={currency} locale={locale} />
              </Leader>
            ) : null}
          </div>
        );
      })}
      {terms.reserve ? (
        <p className="small mt-1 text-soft">
          The processor holds {terms.reserve.percent} % of each day for {terms.reserve.days} days.
        </p>
      ) : null}
    </div>
  );
}

export default async function PayoutsLayout({ children }: { children: ReactNode }) {
  const list = await payoutList(await pageActor());
  const { business, returned, gathering, rows, next } = list;
  const all = [
    ...returned.map((row) => jsonPayout(row, business)),
    ...gathering.map((one) => jsonGathering(one, business)),
    ...rows.map((row) => jsonPayout(row, business)),
  ];
  return (
    <>
      <MoneyTabs here="Payouts" />
      <ListAndSheet
        label="Payouts"
        list={
          <>
            <Heading list={list} />
            {all.length === 0 ? (
              <Empty words="Nothing has been paid out yet. What customers pay by card gathers here, and goes to your account." />
            ) : (
              <ListGroups
                rows={all}
                next={next === null ? null : { key: String(next), id: String(next) }}
                more="/api/payouts"
                locale={business.deskLocale}
              />
            )}
            <Held list={list} />
          </>
        }
      >
        {children}
      </ListAndSheet>
    </>
  );
}
