import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { mayDo } from '@/core/person/rights';
import { cardAnswers } from '@/flows/house/first-day';
import { businessToday } from '@/flows/payment/payment-list';
import { CardAnswersForm } from '@/ui/house/card-answers';
import { OwnersOnly } from '@/ui/kit/owners-only';

export const metadata: Metadata = { title: 'Card payments' };

export default async function CardsPage() {
  const actor = await pageActor();
  const { business } = await businessToday(actor);
  const { kind, statementName, since, proposed } = await cardAnswers(actor);
  const maySet = mayDo(actor, 'settings');
  return (
    <div className="mx-auto max-w-[620px] px-4 pb-10 pt-6 sm:px-7">
      <article className="sheet px-7 py-6" aria-label="Card payments">
        <h1 className="title-screen mb-1">Card payments</h1>
        <p className="document mb-5">
          {since
            ? `Open since ${shortDate(dateInZone(since, business.zone), business.deskLocale, { year: true })}. What you change holds for payments from now on.`
            : 'Two answers, and your customers can pay by card. What is paid is kept for you until there is a bank account.'}
        </p>
        <OwnersOnly may={maySet} />
        <CardAnswersForm
          kind={kind}
          statementName={statementName || proposed}
          isOpen={since !== null}
          maySet={maySet}
        />
      </article>
    </div>
  );
}
