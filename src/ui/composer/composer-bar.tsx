'use client';
import type { Route } from 'next';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { clockTime } from '@/core/dates/date-text';
import { Button } from '../kit/button';
import { Rosette } from '../rosette';
import type { Keeping } from './draft-keeper';

/** Whether keeping is done, in a word or two. */
function KeepingWords({ keeping, zone }: { keeping: Keeping; zone: string }) {
  if (keeping.state === 'keeping') return <>saving …</>;
  if (keeping.state === 'here-only')
    return <span className="font-medium text-ochre">saved on this computer only. {keeping.words}</span>;
  return keeping.at ? <>saved {clockTime(keeping.at, zone)}</> : <>nothing changed yet</>;
}

/** What is composed, how keeping stands, and the one next action. */
export function ComposerBar({
  id,
  number,
  sentVersion,
  keeping,
  zone,
  mayAsk,
  menu,
  onDiscard,
  onSend,
}: {
  id: string;
  number: string;
  /** The version of a sent invoice that is changed; null for a draft. */
  sentVersion: number | null;
  keeping: Keeping;
  zone: string;
  mayAsk: boolean;
  /** What more can be done with a draft. */
  menu: ReactNode;
  onDiscard: () => void;
  onSend: () => void;
}) {
  const fixed = sentVersion !== null;
  return (
    <div className="flex min-h-[58px] flex-wrap items-center gap-x-3.5 gap-y-1 py-1.5">
      <Link href={(fixed ? `/ask/invoices/${id}` : '/ask/invoices') as Route} className="link">
        {fixed ? 'Back to the sheet' : 'Invoices'}
      </Link>
      <h1 className="font-serif text-[23px]/[30px] font-medium">
        {fixed ? `Edit invoice ${number}` : `Invoice ${number}`}
      </h1>
      {fixed ? null : (
        <>
          <span className="inline-flex items-center gap-1.5 font-medium">
            <Rosette state="Draft" size={22} />
            Draft
          </span>
          <span className="small text-soft" aria-live="polite" data-keeping={keeping.state}>
            <KeepingWords keeping={keeping} zone={zone} />
          </span>
        </>
      )}
      <span className="flex-1" />
      {mayAsk && fixed ? (
        <Button look="go" onClick={onSend}>
          Save as version {(sentVersion ?? 1) + 1}
        </Button>
      ) : null}
      {mayAsk && !fixed ? (
        <>
          {menu}
          <Button look="link" onClick={onDiscard}>
            Discard
          </Button>
          <Button look="go" onClick={onSend}>
            Send invoice
          </Button>
        </>
      ) : null}
      {mayAsk ? null : <span className="text-soft">You may look, not change.</span>}
    </div>
  );
}
