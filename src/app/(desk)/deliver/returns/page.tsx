import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { REASON_WORDS, RETURN_WORDS } from '@/core/parcel/returning';
import { SCAN_WORDS, type ScanLine } from '@/core/parcel/shipment';
import { mayDo } from '@/core/person/rights';
import { businessToday } from '@/flows/payment/payment-list';
import { returnsUnderWay } from '@/flows/returning/return-label';
import { returnsDesk } from '@/flows/returning/returns';
import { ReturnsDesk } from '@/ui/returning/returns-desk';
import { DeliverTabs } from '../deliver-tabs';

export const metadata: Metadata = { title: 'Returns' };

export default async function ReturnsPage() {
  const actor = await pageActor('customers');
  const rows = await returnsDesk(actor);
  const ways = await returnsUnderWay(
    actor,
    rows.flatMap(({ state, number }) => (state === 'allowed' && number ? [number] : [])),
  );
  const { deskLocale: locale, zone } = (await businessToday(actor)).business;
  const sees = mayDo(actor, 'see');
  const wayWords = (last: ScanLine | undefined): string =>
    last
      ? [SCAN_WORDS[last.scan], shortDate(dateInZone(last.at, zone), locale, { weekday: true }), last.place]
          .filter(Boolean)
          .join(', ')
      : '';
  const may = (right: Parameters<typeof mayDo>[1]) => !actor.closed && mayDo(actor, right);
  return (
    <>
      <DeliverTabs here="Returns" sums={sees} />
      <ReturnsDesk
        may={{ answer: may('ask'), pack: may('pack'), giveBack: may('give-back') }}
        rows={rows.map(
          ({
            id,
            state,
            name,
            sale,
            askedAt,
            reason,
            words,
            fileId,
            answer,
            number,
            wasPosted,
            paymentId,
            lines,
            whats,
          }) => ({
            ...{ id, state, name, words, fileId, answer, number, wasPosted, paymentId },
            stateWords: RETURN_WORDS[state],
            way: wayWords(ways.get(number)),
            sale: `${sale.invoiceId ? 'Invoice' : 'Order'} ${sale.number}`,
            saleHref: sees && sale.invoiceId ? `/ask/invoices/${sale.invoiceId}` : '',
            when: shortDate(dateInZone(askedAt, zone), locale, { weekday: true }),
            reason: REASON_WORDS[reason].toLowerCase(),
            lines: lines.map((line, at) => ({ ...line, what: whats[at] ?? '' })),
          }),
        )}
      />
    </>
  );
}
