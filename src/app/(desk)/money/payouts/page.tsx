import type { Metadata, Route } from 'next';
import Link from 'next/link';
import { pageActor } from '@/app/session';
import { shortDate } from '@/core/dates/date-text';
import { jsonMinor } from '@/core/money/money';
import { mayDo } from '@/core/person/rights';
import { payoutList } from '@/flows/payout/payout-list';
import { Amount } from '@/ui/kit/amount';
import { Overview, OverviewPart, OverviewRow } from '@/ui/kit/overview';
import { gatheringId, PAYOUT_WORDS } from './json-payout';

export const metadata: Metadata = { title: 'Payouts' };

/** While none is chosen: what goes out next, what is on its way, and what has to be done for it. */
export default async function NoPayoutOpen() {
  const actor = await pageActor();
  const { business, gathering, rows, returned, accounts } = await payoutList(actor);
  const { deskLocale: locale } = business;
  const moving = [...returned, ...rows.filter(({ state }) => state === 'made' || state === 'sent')];
  const figure = (minor: bigint, currency: string) => (
    <span className="private">
      <Amount minor={jsonMinor(minor)} currency={currency} locale={locale} />
    </span>
  );
  const checking = accounts.filter(({ state }) => state === 'checking');
  return (
    <Overview label="Payouts at a glance">
      <OverviewPart name="Goes out next">
        {gathering.length === 0 ? (
          <p className="py-3 text-soft">Nothing gathers: no closed day has brought anything that was not paid out.</p>
        ) : (
          <ul>
            {gathering.map((one) => (
              <OverviewRow
                key={gatheringId(one)}
                href={`/money/payouts/${gatheringId(one)}`}
                name={one.partner || business.name}
                about={
                  !business.verifiedAt
                    ? 'waits until it is known who stands behind the business'
                    : one.hasAccount
                      ? one.on
                        ? shortDate(one.on, locale, { weekday: true })
                        : 'by hand'
                      : 'no confirmed account yet'
                }
                figure={figure(one.minor, one.currency)}
              />
            ))}
          </ul>
        )}
      </OverviewPart>
      <OverviewPart name="On the way, or come back">
        {moving.length === 0 ? (
          <p className="py-3 text-soft">Nothing: all that was paid out has arrived.</p>
        ) : (
          <ul>
            {moving.map((payout) => (
              <OverviewRow
                key={payout.id}
                href={`/money/payouts/${payout.id}`}
                name={payout.partner || `Payout ${payout.number}`}
                about={PAYOUT_WORDS[payout.state]}
                figure={figure(payout.amountMinor, payout.currency)}
              />
            ))}
          </ul>
        )}
      </OverviewPart>
      {business.verifiedAt ? null : (
        <p className="pt-4">
          Nothing is paid out before it is known who stands behind the business.{' '}
          {mayDo(actor, 'people') ? (
            <Link className="link" href="/settings/identity">
              Show it
            </Link>
          ) : (
            'An owner shows it.'
          )}
        </p>
      )}
      {checking.length > 0 ? (
        <p className="pt-4">
          {checking.length === 1 ? 'One account waits' : `${checking.length} accounts wait`} for two small sums to be
          typed in.{' '}
          <Link className="link" href={'/money/payouts/accounts' as Route}>
            Confirm
          </Link>
        </p>
      ) : null}
    </Overview>
  );
}
