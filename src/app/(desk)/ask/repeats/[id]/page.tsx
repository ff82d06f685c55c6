import type { Metadata } from 'next';
import { orNotFound } from '@/app/found';
import { pageActor } from '@/app/session';
import { businessToday } from '@/flows/payment-list';
import { repeatSheet } from '@/flows/repeats';
import { RepeatSheet } from '@/ui/repeat/repeat-sheet';
import { AskShelf } from '../../shelf';

export const metadata: Metadata = { title: 'Coming again' };

export default async function RepeatPage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await pageActor();
  const { id } = await params;
  const { repeat, customer, runs, coming } = await orNotFound(id, repeatSheet(actor, id));
  const { business } = await businessToday(actor);
  const { name, schedule, makes, state } = repeat;
  return (
    <>
      <AskShelf here="Coming again" />
      <div className="mx-auto max-w-[860px] px-4 pb-10 sm:px-7">
        <RepeatSheet
          {...{ id, name, customer, schedule, makes, state, coming, runs }}
          locale={business.locale}
          mayAsk={actor.role !== 'reader'}
        />
      </div>
    </>
  );
}
