import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { DISPUTE_WORDS } from '@/core/dispute/dispute-words';
import { jsonMinor } from '@/core/money/money';
import { disputeList } from '@/flows/dispute/dispute-sheet';
import { Amount } from '@/ui/kit/amount';
import { Overview, OverviewPart, OverviewRow } from '@/ui/kit/overview';

export const metadata: Metadata = { title: 'Disputes' };

/** While none is chosen: which want an answer until when, and which the bank is deciding. */
export default async function NoDisputeOpen() {
  const { business, open, rows } = await disputeList(await pageActor());
  const { deskLocale: locale, zone } = business;
  const waiting = rows.filter(({ state }) => state === 'sent' || state === 'sending');
  const figure = (minor: bigint, currency: string) => (
    <span className="private">
      <Amount minor={jsonMinor(minor)} currency={currency} locale={locale} />
    </span>
  );
  return (
    <Overview label="Disputes at a glance">
      <OverviewPart name="To be answered">
        {open.length === 0 ? (
          <p className="py-3 text-soft">None: no payment is disputed without an answer.</p>
        ) : (
          <ul>
            {open.map((one) => (
              <OverviewRow
                key={one.id}
                href={`/money/disputes/${one.id}`}
                name={one.customer}
                about={`${DISPUTE_WORDS[one.reason]}; answer by ${shortDate(dateInZone(one.answerBy, zone), locale, { weekday: true })}`}
                figure={figure(one.amountMinor, one.currency)}
              />
            ))}
          </ul>
        )}
      </OverviewPart>
      <OverviewPart name="The bank decides">
        {waiting.length === 0 ? (
          <p className="py-3 text-soft">Nothing is waited for.</p>
        ) : (
          <ul>
            {waiting.map((one) => (
              <OverviewRow
                key={one.id}
                href={`/money/disputes/${one.id}`}
                name={one.customer}
                about={
                  one.sentAt
                    ? `answered ${shortDate(dateInZone(one.sentAt, zone), locale, { weekday: true })}`
                    : 'the answer is on its way'
                }
                figure={figure(one.amountMinor, one.currency)}
              />
            ))}
          </ul>
        )}
      </OverviewPart>
    </Overview>
  );
}
