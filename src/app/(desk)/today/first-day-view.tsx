import type { Route } from 'next';
import Link from 'next/link';
import { OrBeginWith } from '@/ui/house/or-begin-with';
import { type ShownFirstDay, WhatOpens } from '@/ui/house/what-opens';

/** Today, before anybody was asked for money: the invoice that is half written, and what opens what. */
export function FirstDayView({ first, draftId, heading }: { first: ShownFirstDay; draftId: string; heading: string }) {
  return (
    <div className="mx-auto grid max-w-[1180px] items-start gap-x-10 gap-y-8 px-4 pb-10 sm:px-7 lg:grid-cols-[minmax(0,1fr)_432px]">
      <section aria-label="Your first invoice">
        <h1 className="title-screen pt-4">{heading}</h1>
        <p className="mt-1 font-serif text-[18px]/[26px]">Your first invoice is half written.</p>
        <div className="sheet mt-5 p-7">
          <p className="document max-w-[46ch]">
            Say who pays and what for. While you write, you see what your customer will see; nothing goes out before you
            say so.
          </p>
          <p className="mt-5">
            <Link href={`/ask/compose/${draftId}` as Route} className="btn btn-go">
              Go on writing it
            </Link>
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
