'use client';
import dynamic from 'next/dynamic';
import type { ReactNode } from 'react';
import type { ChartDay } from './horizon-chart';

// Drawn in the browser only, after the words: the chart's library is the largest thing on this screen.
const HorizonChart = dynamic(() => import('./horizon-chart').then((part) => part.HorizonChart), {
  ssr: false,
  loading: () => <div className="h-[168px]" />,
});

/** The horizon across the foot of Today, with the same figures as a table for screen readers. */
export function HorizonStrip({
  days,
  weeks,
  words,
}: {
  days: readonly ChartDay[];
  weeks: readonly { readonly from: string; readonly span: number; readonly figure: string; readonly past: boolean }[];
  words: ReactNode;
}) {
  return (
    <section aria-label="Horizon" className="border-t border-rule bg-wash px-4 pb-4 pt-2.5 sm:px-7">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h2 className="title-section">Horizon</h2>
        <p className="text-soft">{words}</p>
        <span className="flex-1" />
        <span className="small flex items-center gap-1.5">
          <span className="size-3 bg-leaf" aria-hidden="true" /> Came in
        </span>
        <span className="small flex items-center gap-1.5">
          <span className="size-3 border-[1.6px] border-dusk bg-sheet" aria-hidden="true" /> Due
        </span>
      </div>
      <div className="overflow-x-auto" tabIndex={0} role="group" aria-label="Money by day">
        <div className="min-w-[900px]">
          <HorizonChart days={days} />
          <div
            className="grid"
            style={{ gridTemplateColumns: `repeat(${days.length}, minmax(0, 1fr))` }}
            aria-hidden="true"
          >
            {weeks.map((week) => (
              <div key={week.from} style={{ gridColumn: `span ${week.span}` }} className="px-0.5">
                <div className="h-1.5 border border-t-0 border-edge" />
                <div
                  className={`private truncate pt-0.5 text-center font-serif text-[13.5px] ${week.past ? 'text-leaf' : ''}`}
                >
                  {week.span > 2 ? week.figure : ''}
                </div>
              </div>
            ))}
          </div>
        </div>
      </div>
      {/* A table takes no height from anybody: what hides it is around it, or the page has an empty end. */}
      <div className="sr-only">
        <table>
          <caption>Money by day</caption>
          <tbody>
            {days
              .filter((day) => day.value > 0)
              .map((day) => (
                <tr key={day.on}>
                  <th scope="row">{day.on}</th>
                  <td>{day.past ? 'came in' : 'due'}</td>
                  <td>{day.figure}</td>
                </tr>
              ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
