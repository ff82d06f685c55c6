'use client';
import type { Working } from '@/core/tally/working';
import { type ShownFirstDay, WhatOpens } from '../house/what-opens';
import { Button } from '../kit/button';
import { WorkingSteps } from '../working';
import { ProofPane } from './proof-pane';

/** Beside the paper: the tally of the figure that is asked about, and the proof of what the customer gets. */
export function ComposerSide({
  id,
  working: shownWorking,
  ofTotal,
  fixed,
  revision,
  who,
  currency,
  locale,
  onTotal,
  first,
}: {
  id: string;
  working: Working;
  /** Whether the tally is the total's. */
  ofTotal: boolean;
  /** Whether a sent invoice is changed: its proof is the version that is made. */
  fixed: boolean;
  revision: number;
  who: string;
  currency: string;
  locale: string;
  onTotal: () => void;
  /** How the first days stand, where they are not over. */
  first: ShownFirstDay | null;
}) {
  return (
    <div className="grid gap-6">
      {first ? <WhatOpens of={first} /> : null}
      <section aria-label="Tally" aria-live="off">
        <div className="flex h-[32px] items-baseline justify-between border-b border-ink">
          <h2 className="title-section private truncate">Tally: {shownWorking.title}</h2>
          {ofTotal ? null : (
            <Button look="small-link" onClick={onTotal}>
              Of the total
            </Button>
          )}
        </div>
        <div className="max-h-[250px] overflow-auto pt-2" tabIndex={0} role="group" aria-label="Steps of the tally">
          <WorkingSteps working={shownWorking} currency={currency} locale={locale} />
        </div>
      </section>
      {fixed ? (
        <p className="border-t border-ink pt-3 font-serif text-[15.5px]/[22px]">
          What was paid stays paid. The customer’s page says that the invoice has changed, and the earlier version is
          kept.
        </p>
      ) : (
        <ProofPane id={id} revision={revision} who={who} />
      )}
    </div>
  );
}
