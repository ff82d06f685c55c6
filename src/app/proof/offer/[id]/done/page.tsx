import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { pageActor } from '@/app/session';
import { wordsOf } from '@/core/words/words';
import { rehearsalEnd } from '@/flows/checkout/rehearse';
import { CheckoutFrame } from '@/ui/checkout/checkout-frame';
import { OrderThanks } from '@/ui/checkout/order-thanks';

export const metadata: Metadata = { title: 'Rehearsal' };

/** The end of a rehearsal: the page and the mail that the payer would get. */
export default async function RehearsalDone({ searchParams }: { searchParams: Promise<{ of?: string | string[] }> }) {
  const actor = await pageActor();
  const { of } = await searchParams;
  const end = typeof of === 'string' ? await rehearsalEnd(actor, of) : null;
  if (!end) notFound();
  const words = wordsOf(end.order.locale).offer;
  return (
    <CheckoutFrame
      logo={null}
      languages={false}
      notice={words.rehearsed}
      view={{ ...end.order, title: words.thankYou, description: '', request: null }}
    >
      <OrderThanks
        order={end.order}
        thanks={end.thanks}
        card={end.card}
        reference=""
        mailed
        receipt={null}
        onTo={null}
      />
      <div className="border-t border-rule px-5 py-6 sm:px-11">
        <p className="mb-2 text-[15px] font-medium">{end.letter.subject}</p>
        <iframe
          title={end.letter.subject}
          srcDoc={end.letter.html}
          sandbox=""
          className="h-[560px] w-full border border-rule bg-sheet"
        />
      </div>
    </CheckoutFrame>
  );
}
