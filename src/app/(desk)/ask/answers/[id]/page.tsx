import type { Metadata, Route } from 'next';
import Link from 'next/link';
import { orNotFound } from '@/app/found';
import { pageActor } from '@/app/session';
import { shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { offerAnswers } from '@/flows/offer/answers';
import { Empty } from '@/ui/kit/empty';
import { PLACEMENT_WORDS } from '@/ui/offer/placement-words';
import { AskTabs } from '../../ask-tabs';

export const metadata: Metadata = { title: 'Answers' };

/** What payers answered to an offer's own questions, as a table. */
export default async function AnswersPage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await pageActor();
  const { id } = await params;
  const { business, placed, questions, rows, more } = await orNotFound(id, offerAnswers(actor, id));
  const { list, path } = PLACEMENT_WORDS[placed.placement];
  const day = (at: Date) => shortDate(dateInZone(at, business.zone), business.deskLocale, { weekday: true });
  return (
    <>
      <AskTabs here={list} />
      <div className="px-4 pb-10 sm:px-7">
        <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1 pb-3">
          <h1 className="title-screen min-w-0 flex-1 break-words">Answers: {placed.name}</h1>
          <Link className="link" href={`${path}/${id}` as Route}>
            Back to it
          </Link>
          <a className="link" href={`/files/answers/${id}`}>
            As CSV
          </a>
        </div>
        {rows.length === 0 ? (
          <Empty words="Nobody has paid yet. What payers answer stands here, one payment a row." />
        ) : questions.length === 0 ? (
          <Empty words="Nothing of your own was asked in these payments. Add a question to the offer, and its answers stand here." />
        ) : (
          <div
            className="sheet w-fit max-w-full overflow-x-auto px-[18px] pb-3"
            tabIndex={0}
            role="group"
            aria-label="Answers"
          >
            <table className="min-w-[600px] border-collapse text-left">
              <thead>
                <tr className="border-b border-ink align-bottom text-[12.5px]/[17px]">
                  <th scope="col" className="py-2 pr-4 font-semibold">
                    Paid
                  </th>
                  <th scope="col" className="py-2 pr-4 font-semibold">
                    Who
                  </th>
                  {questions.map((question) => (
                    <th key={question} scope="col" className="max-w-[220px] py-2 pr-4 font-semibold">
                      {question}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {rows.map(({ paymentId, at, payer, cells }) => (
                  <tr key={paymentId} className="border-b border-rule align-baseline">
                    <td className="whitespace-nowrap py-2 pr-4 text-soft">{day(at)}</td>
                    <th scope="row" className="py-2 pr-4 font-normal">
                      <Link className="private name hover:underline" href={`/money/payments/${paymentId}` as Route}>
                        {payer}
                      </Link>
                    </th>
                    {cells.map(({ text, fileId }, column) => (
                      <td key={questions[column]} className="max-w-[260px] break-words py-2 pr-4">
                        {fileId ? (
                          <a className="link" href={`/files/own/${fileId}`} target="_blank" rel="noreferrer">
                            {text}
                          </a>
                        ) : (
                          <span className="private">{text}</span>
                        )}
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
            {more ? <p className="small pt-2 text-soft">The latest 300 are shown; the file has all.</p> : null}
          </div>
        )}
      </div>
    </>
  );
}
