import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { mayDo } from '@/core/person/rights';
import { counterDesk } from '@/flows/counter/collect';
import { businessToday } from '@/flows/payment/payment-list';
import { CounterDesk } from '@/ui/counter/counter-desk';
import { DeliverTabs } from '../deliver-tabs';

export const metadata: Metadata = { title: 'Counter' };

export default async function CounterPage({ searchParams }: { searchParams: Promise<{ words?: string }> }) {
  const actor = await pageActor('customers');
  const words = String((await searchParams).words ?? '').slice(0, 120);
  const { rows, lately } = await counterDesk(actor, words);
  const { deskLocale: locale, zone } = (await businessToday(actor)).business;
  const day = (at: Date | null) => (at ? shortDate(dateInZone(at, zone), locale, { weekday: true }) : '');
  return (
    <>
      <DeliverTabs here="Counter" sums={mayDo(actor, 'see')} />
      <CounterDesk
        words={words}
        mayPack={!actor.closed && mayDo(actor, 'pack')}
        rows={rows.map(({ id, name, number, invoiceId, phone, email, wish, readyAt, toldAt, lines }) => ({
          ...{ id, name, phone, wish, lines },
          sale: `${invoiceId ? 'Invoice' : 'Order'} ${number}`,
          since: day(readyAt),
          told: day(toldAt),
          canTell: email !== '' && toldAt === null,
        }))}
        lately={lately.map(({ id, at, name, recipient, number, strokes, byName }) => ({
          ...{ id, name, recipient, number, strokes, byName },
          when: `${day(at)}, ${clockTime(at, zone)}`,
        }))}
      />
    </>
  );
}
