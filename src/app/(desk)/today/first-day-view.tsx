import type { Route } from 'next';
import Link from 'next/link';
import { jsonMinor } from '@/core/money/money';
import type { HalfWritten } from '@/flows/house/first-day';
import { OrBeginWith } from '@/ui/house/or-begin-with';
import { type ShownFirstDay, WhatOpens } from '@/ui/house/what-opens';
import { Amount } from '@/ui/kit/amount';
import { Leader } from '@/ui/kit/leader';

/** Today, before anybody was asked for money: the invoice that is half written, and what opens what. */
export function FirstDayView({
  first,
  draft,
  heading,
  business,
}: {
  first: ShownFirstDay;
  draft: HalfWritten;
  heading: string;
  business: { readonly name: string; readonly deskLocale: string };
}) {
  const isWritten = draft.lines.length > 0;
  const lines = isWritten ? draft.lines.slice(0, 6) : ['nothing written yet'];
  return (
    <div className="mx-auto grid max-w-[1180px] items-start gap-x-10 gap-y-8 px-4 pb-10 sm:px-7 lg:grid-cols-[minmax(0,1fr)_432px]">
      <section aria-label="Your first invoice">
        <h1 className="title-screen pt-4">{heading}</h1>
        <p className="mt-1 font-serif text-[18px]/[26px]">
          {isWritten ? 'Your first invoice is half written.' : 'Your first invoice waits for its first words.'}
        </p>
        <div className="sheet mt-5 px-7 py-6 sm:px-9">
          <div className="flex items-baseline justify-between gap-4">
            <span className="font-serif text-[19px]/7 font-semibold">{business.name}</span>
            <span className="font-serif text-[16px]/6">Invoice</span>
          </div>
          <p className="label mt-4">Who pays</p>
          <p className={`font-serif text-[19px]/7 ${draft.customer ? 'private font-medium' : 'italic text-soft'}`}>
            {draft.customer || 'nobody chosen yet'}
          </p>
          <ul className="mt-4 border-t border-ink">
            {lines.map((what, at) => (
              <li
                key={at}
                className={`truncate border-b border-rule py-1.5 font-serif text-[16px]/6 ${isWritten ? '' : 'italic text-soft'}`}
              >
                {what}
              </li>
            ))}
          </ul>
          <div className="mt-3 max-w-[280px] ml-auto font-serif text-[17px]/7 font-semibold">
            <Leader label="Total due">
              <Amount minor={jsonMinor(draft.totalMinor)} currency={draft.currency} locale={business.deskLocale} />
            </Leader>
          </div>
          <p className="mt-5 flex flex-wrap items-center gap-x-5 gap-y-2">
            <Link href={`/ask/compose/${draft.id}` as Route} className="btn btn-go">
              Go on writing it
            </Link>
            <span className="text-soft">Nothing goes out before you say so.</span>
          </p>
        </div>
        <div className="mt-5">
          <OrBeginWith />
        </div>
        <p className="mt-2 text-soft">
          Customers and items of another program are taken over in{' '}
          <Link href="/records/customers" className="link">
            Records
          </Link>
          .
        </p>
      </section>
      <div className="lg:pt-6">
        <WhatOpens of={first} />
      </div>
    </div>
  );
}
