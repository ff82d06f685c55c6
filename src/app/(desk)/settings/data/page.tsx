import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { pageActor } from '@/app/session';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { mayDo } from '@/core/person/rights';
import { closingView } from '@/flows/keeping/closing';
import { keepingView } from '@/flows/keeping/keeping-rule';
import { businessToday } from '@/flows/payment/payment-list';
import { ClosingPanel, ReopenPanel } from '@/ui/keeping/closing-panel';
import { KeepingForm } from '@/ui/keeping/keeping-form';
import { TakeAlong } from '@/ui/keeping/take-along';

export const metadata: Metadata = { title: 'Data' };

/** How long things are kept, everything taken along, and the business closed: for its owners. */
export default async function DataPage() {
  const actor = await pageActor();
  if (!mayDo(actor, 'people')) notFound();
  const { business } = await businessToday(actor);
  const { rule, lawYears } = await keepingView(actor);
  const closing = await closingView(actor);
  const { zone, deskLocale: locale } = business;
  const day = (on: CalendarDate) => shortDate(on, locale, { year: true });
  const time = (at: Date) => `${day(dateInZone(at, zone))}, ${clockTime(at, zone)}`;
  return (
    <div className="mx-auto max-w-[720px] px-4 pb-12 pt-6 sm:px-7">
      <article className="sheet px-5 py-6 sm:px-8" aria-label="Data">
        <h1 className="title-screen">What is kept, and what leaves</h1>
        <section aria-label="Take everything along" className="mt-5">
          <h2 className="title-section border-b border-ink pb-1.5">Take everything along</h2>
          <TakeAlong last={closing.takenAlongAt ? time(closing.takenAlongAt) : ''} />
        </section>
        {closing.closedAt ? (
          <section aria-label="Closed" className="mt-9">
            <h2 className="title-section border-b border-ink pb-1.5">
              Closed on {day(dateInZone(closing.closedAt, zone))}
            </h2>
            <ReopenPanel eraseOn={day(closing.eraseOn)} />
          </section>
        ) : (
          <>
            <section aria-label="How long things are kept" className="mt-9">
              <h2 className="title-section mb-3 border-b border-ink pb-1.5">How long things are kept</h2>
              <KeepingForm rule={rule} lawYears={lawYears} />
            </section>
            <section aria-label="Close the business" className="mt-10">
              <h2 className="title-section border-b border-ink pb-1.5">Close the business</h2>
              <ClosingPanel
                name={closing.name}
                open={closing.open}
                isTakenAlong={closing.isTakenAlong}
                eraseOn={day(closing.eraseOn)}
              />
            </section>
          </>
        )}
      </article>
    </div>
  );
}
