'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { VERDICT_WORDS } from '@/core/carrier/statement';
import { FileDrop } from '../import/file-drop';
import { Figure } from '../kit/amount';
import { Button } from '../kit/button';
import { FieldError } from '../kit/field';
import { Leader } from '../kit/leader';
import { OverviewPart } from '../kit/overview';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';
import { sendFile } from '../kit/send-file';
import { say } from '../kit/toasts';

/** An entry that differs, as it is shown; sums in minor units, null where one side has none. */
export type EntryShown = {
  readonly key: string;
  readonly what: string;
  readonly about: string;
  readonly href: string;
  readonly verdict: string;
  readonly theirs: number | null;
  readonly ours: number | null;
  /** What is still to be decided; 0 for nothing. */
  readonly left: number;
  readonly isLeft: boolean;
};

export type StatementShown = {
  readonly month: string;
  readonly name: string;
  /** What the comparison says, in words; null where it is not read yet. */
  readonly says: string | null;
  readonly isGood: boolean;
  /** What is wrong with the file as a whole. */
  readonly warnings: readonly string[];
  readonly lines: readonly { readonly label: string; readonly minor: number }[];
  readonly entries: readonly EntryShown[];
  readonly read: string;
};

const COLUMNS = 'grid grid-cols-[minmax(0,1fr)_70px_70px] gap-x-3 sm:grid-cols-[minmax(0,1fr)_84px_84px_150px]';
const NEXT = VERDICT_WORDS['next-month'];

/** A month at the carrier beside our own book: what agrees is counted, what differs is decided on. */
export function StatementDesk({
  months,
  shown,
  currency,
  locale,
  may,
}: {
  months: readonly { readonly month: string; readonly name: string; readonly state: string; readonly open: number }[];
  shown: StatementShown | null;
  currency: string;
  locale: string;
  may: { readonly read: boolean; readonly book: boolean };
}) {
  const router = useRouter();
  const [trouble, setTrouble] = useState('');
  const { busy, press } = usePress();
  const figure = (minor: number | null) =>
    minor === null ? (
      <span className="text-soft">–</span>
    ) : (
      <Figure minor={minor} currency={currency} locale={locale} />
    );
  async function done(path: string, body: object, words: string) {
    const answer = await press(path, body, words);
    setTrouble(troubleOf(answer));
  }
  const decide = (key: string, deed: 'book' | 'leave', words: string) =>
    void done('/api/carrier/statements/decide', { month: shown?.month ?? '', key, deed }, words);
  async function bring(file: File) {
    const answer = await sendFile<{ month: string }>('/api/carrier/statements', file);
    setTrouble(troubleOf(answer));
    if (!answer.ok) return;
    say('The statement is read');
    router.push(`/deliver/carrier?month=${answer.value.month}` as Route);
    router.refresh();
  }
  return (
    <div className="mx-auto grid max-w-[1180px] gap-7 px-4 pb-12 pt-3 sm:px-7 md:grid-cols-[250px_minmax(0,1fr)]">
      <aside aria-label="Months" className="min-w-0">
        <h2 className="border-b border-ink pb-1.5 font-serif text-[17px] font-medium">Carrier’s statements</h2>
        <ul>
          {months.map(({ month, name, state, open }) => (
            <li key={month}>
              <Link
                href={`/deliver/carrier?month=${month}` as Route}
                aria-current={shown?.month === month ? 'page' : undefined}
                className={`grid min-h-[40px] grid-cols-[minmax(0,1fr)_auto] items-center gap-3 border-b border-rule px-1 ${shown?.month === month ? 'bg-petal' : 'hover:bg-wash'}`}
              >
                <span className="font-serif text-[15.5px] font-medium">{name}</span>
                <span className={`small ${open > 0 ? 'text-ochre' : 'text-soft'}`}>{state}</span>
              </Link>
            </li>
          ))}
        </ul>
        {may.read ? (
          <div className="pt-5">
            <FileDrop
              label="Bring a statement"
              hint="A CSV file of the carrier’s"
              accept=".csv,text/csv,text/plain"
              onFile={bring}
            />
          </div>
        ) : null}
        {trouble ? <FieldError>{trouble}</FieldError> : null}
      </aside>
      <section className="min-w-0">
        {shown ? (
          <article className="sheet px-[26px] pb-6" aria-label={`Statement of ${shown.name}`}>
            <div className="flex flex-wrap items-baseline gap-x-5 pt-4">
              <h1 className="flex-1 font-serif text-[27px]/[34px] font-medium">{shown.name}</h1>
              {may.read ? (
                <Button
                  look="link"
                  disabled={busy}
                  onClick={() =>
                    void done('/api/carrier/statements/fetch', { month: shown.month }, 'The statement is fetched')
                  }
                >
                  {shown.says === null ? 'Fetch it now' : 'Fetch it again'}
                </Button>
              ) : null}
            </div>
            <p className="pt-1 font-serif text-[17px]/[25px]">
              {shown.says === null ? (
                'It is fetched by itself on the second day after the month’s end.'
              ) : (
                <span className={shown.isGood ? '' : 'text-ochre'}>{shown.says}</span>
              )}
            </p>
            {shown.warnings.map((words) => (
              <p key={words} className="document mt-2 bg-ochre-tint px-3.5 py-2.5">
                {words}
              </p>
            ))}
            {shown.entries.length > 0 ? (
              <section aria-label="What differs" className="mt-4">
                <div
                  aria-hidden="true"
                  className={`${COLUMNS} border-b border-ink text-[12.5px]/[18px] font-medium text-soft`}
                >
                  <span>Entry</span>
                  <span className="text-right">Theirs</span>
                  <span className="text-right">Ours</span>
                </div>
                <ul>
                  {shown.entries.map((entry) => (
                    <li key={entry.key} className={`${COLUMNS} items-start border-b border-rule py-2`}>
                      <span className="min-w-0">
                        <span className="block font-serif text-[15px]/[19px] font-medium">
                          {entry.href ? (
                            <Link className="link" href={entry.href as Route}>
                              {entry.what}
                            </Link>
                          ) : (
                            entry.what
                          )}
                        </span>
                        <span className="block text-[12.5px]/[18px] text-soft">{entry.about}</span>
                        <span
                          className={`block text-[12.5px]/[18px] ${entry.left !== 0 && !entry.isLeft ? 'text-ochre' : 'text-soft'}`}
                        >
                          {entry.verdict}
                        </span>
                      </span>
                      <span className="private text-right font-serif text-[15px]">
                        <span className="sr-only">Theirs: </span>
                        {figure(entry.theirs)}
                      </span>
                      <span className="private text-right font-serif text-[15px]">
                        <span className="sr-only">Ours: </span>
                        {figure(entry.ours)}
                      </span>
                      <span className="col-span-3 flex flex-wrap items-center justify-end gap-x-4 sm:col-span-1">
                        {entry.left === 0 && entry.verdict !== NEXT ? (
                          <span className="small text-leaf">booked</span>
                        ) : null}
                        {entry.left !== 0 && entry.isLeft ? (
                          <span className="small text-soft">left as it is</span>
                        ) : null}
                        {entry.left !== 0 && may.book ? (
                          <Button
                            look="small-link"
                            disabled={busy}
                            aria-label={`Book it: ${entry.what}`}
                            onClick={() => decide(entry.key, 'book', 'The difference is booked')}
                          >
                            Book it
                          </Button>
                        ) : null}
                        {entry.left !== 0 && may.book && !entry.isLeft ? (
                          <Button
                            look="small-link"
                            disabled={busy}
                            aria-label={`Leave it: ${entry.what}`}
                            onClick={() => decide(entry.key, 'leave', 'Left as it is')}
                          >
                            Leave it
                          </Button>
                        ) : null}
                      </span>
                    </li>
                  ))}
                </ul>
              </section>
            ) : null}
            {shown.lines.length > 0 ? (
              <div className="mt-6">
                <OverviewPart name="The month at the carrier">
                  {shown.lines.map(({ label, minor }) => (
                    <Leader key={label} label={label} className="document border-b border-rule py-1">
                      <Figure minor={minor} currency={currency} locale={locale} />
                    </Leader>
                  ))}
                  <p className="small pt-2 text-soft">{shown.read}</p>
                </OverviewPart>
              </div>
            ) : null}
          </article>
        ) : (
          <p className="py-6 text-soft">
            Nothing has moved at the carrier yet. Once labels are bought, each month’s statement is compared here.
          </p>
        )}
      </section>
    </div>
  );
}
