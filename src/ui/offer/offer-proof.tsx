'use client';
import { useState } from 'react';
import { Scaled } from '../composer/proof-pane';

const VIEWS = [
  { name: 'Phone', width: 390 },
  { name: 'Desk', width: 1180 },
  { name: 'Mail', width: 640 },
] as const;

/** What payers and visitors will see, by the code that serves them. @param mail a sample mail that leads there @param stamp renewed with it @param note what is said below */
export function OfferProof({ src, mail, stamp, note }: { src: string; mail: string; stamp: number; note: string }) {
  const [view, setView] = useState<(typeof VIEWS)[number]>(VIEWS[0]);
  return (
    <aside className="hidden lg:block" aria-label="Proof">
      <div className="sticky top-3">
        <div className="flex items-end">
          <h2 className="title-section flex-1 pb-1">Proof</h2>
          <div className="segment">
            {VIEWS.map((one) => (
              <button
                key={one.name}
                type="button"
                className="!min-h-[30px]"
                aria-pressed={one === view}
                data-state={one === view ? 'on' : 'off'}
                onClick={() => setView(one)}
              >
                {one.name}
              </button>
            ))}
          </div>
        </div>
        <div className="border-t border-ink bg-sheet">
          <Scaled
            key={`${view.name} ${stamp}`}
            src={view.name === 'Mail' ? mail : src}
            title={`Proof: ${view.name}`}
            width={view.width}
            height={600}
          />
        </div>
        <p className="small mt-1 text-soft">{note}</p>
      </div>
    </aside>
  );
}
