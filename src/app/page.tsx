import type { Metadata } from 'next';
import Image from 'next/image';
import Link from 'next/link';
import { redirect } from 'next/navigation';
import { FrontFrame } from '@/ui/house/front-frame';
import desk from '../../docs/screenshots/list-and-sheet.png';
import { currentActor } from './session';

export const metadata: Metadata = { title: { absolute: 'Dahlia: bill for your work, and see it paid' } };

const WAYS: readonly (readonly [name: string, words: string])[] = [
  ['Invoices', 'typed on the paper that your customer gets'],
  ['Payment links', 'sent anywhere, in several currencies'],
  ['Hosted pages', 'that describe something and take the payment'],
  ['Buttons', 'on your own website'],
  ['Billing plans', 'that charge a card again and again'],
];

/** Before signing in: what this is, one picture of the real thing, and the way in. */
export default async function FrontPage() {
  if (await currentActor()) redirect('/today');
  return (
    <FrontFrame
      wide
      aside={
        <Link href="/sign-in" className="link">
          Sign in
        </Link>
      }
    >
      <main className="grid flex-1 items-start gap-x-12 gap-y-8 py-10 lg:grid-cols-[minmax(0,400px)_minmax(0,1fr)]">
        <div>
          <h1 className="font-serif text-[38px]/[44px] font-medium">Bill for your work, and see it paid.</h1>
          <p className="document mt-4">
            For workshops, studios, clubs and practices that bill between other jobs. Before anything goes out you see
            what your customer will see, and every sum shows its working.
          </p>
          <p className="mt-6 flex flex-wrap items-center gap-x-5 gap-y-3">
            <Link href="/sign-up" className="btn btn-go">
              Begin with an invoice
            </Link>
            <span className="text-soft">Four answers; the rest when it is needed.</span>
          </p>
          <dl className="mt-9 border-t border-ink">
            {WAYS.map(([name, words]) => (
              <div key={name} className="grid grid-cols-[122px_minmax(0,1fr)] gap-x-3 border-b border-rule py-2">
                <dt className="font-serif text-[15.5px]/6 font-medium">{name}</dt>
                <dd className="text-soft leading-6">{words}</dd>
              </div>
            ))}
          </dl>
          <p className="mt-4 text-soft">
            One foundation for all five: the same sums, receipts, reminders, refunds and books.
          </p>
        </div>
        <figure className="sheet overflow-hidden p-2.5">
          <Image
            src={desk}
            alt="The desk: a list of invoices, and beside it the one that was chosen, as its customer has it, with what happened to it"
            className="h-auto w-full"
            priority
          />
          <figcaption className="small px-1 pt-2 text-soft">
            The desk of an invented workshop: what is due, and what became of it.
          </figcaption>
        </figure>
      </main>
    </FrontFrame>
  );
}
