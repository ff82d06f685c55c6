'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Figure } from '../kit/amount';
import { Button } from '../kit/button';
import { send } from '../kit/send';
import { sayTrouble } from '../kit/toasts';

type Row = {
  readonly position: number;
  readonly customer: string;
  readonly state: 'ready' | 'refused' | 'sent';
  readonly reason: string;
  readonly number: string | null;
  readonly invoiceId: string | null;
  readonly minor: number;
  readonly currency: string;
};

/** Bulk invoices: what was found when it was checked, how far its sending is, and what was refused. */
export function BulkSheetView({
  id,
  name,
  state,
  rows,
  locale,
  mayAsk,
}: {
  id: string;
  name: string;
  state: 'checked' | 'sending' | 'done';
  rows: readonly Row[];
  locale: string;
  mayAsk: boolean;
}) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const count = (wanted: Row['state']) => rows.filter((row) => row.state === wanted).length;
  const [ready, sent, refused] = [count('ready'), count('sent'), count('refused')];
  async function act(action: 'send' | 'again') {
    setBusy(true);
    const answer = await send('POST', `/api/bulk/${id}`, { action });
    setBusy(false);
    if (!answer.ok) return sayTrouble(answer.words);
    router.refresh();
  }
  const order = { refused: 0, ready: 1, sent: 2 } as const;
  const sorted = [...rows].sort((a, b) => order[a.state] - order[b.state] || a.position - b.position);
  return (
    <div className="mx-auto max-w-[860px] px-4 pb-10 sm:px-7">
      <article className="sheet px-7 py-5" aria-label={name}>
        <div className="flex flex-wrap items-baseline gap-4">
          <h1 className="title-screen flex-1">{name}</h1>
          {mayAsk && state === 'checked' && ready > 0 ? (
            <Button look="go" disabled={busy} onClick={() => void act('send')}>
              Send {ready} invoices
            </Button>
          ) : null}
          {mayAsk && state === 'done' && refused > 0 ? (
            <Button disabled={busy} onClick={() => void act('again')}>
              Try the refused ones again
            </Button>
          ) : null}
        </div>
        <p className="document mt-1" role="status">
          {state === 'checked'
            ? `${ready} can be sent, ${refused} cannot. Nothing has been sent yet.`
            : state === 'sending'
              ? `Sending: ${sent} of ${sent + ready} are out.`
              : `${sent} are sent${refused > 0 ? `, ${refused} were refused` : ''}.`}
        </p>
        {state === 'sending' ? (
          <progress
            className="mt-2 h-2 w-full accent-plum"
            value={sent}
            max={sent + ready}
            aria-label="Invoices sent"
          />
        ) : null}
        <ul className="mt-4 border-t border-ink">
          {sorted.map((row) => (
            <li key={row.position} className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 border-b border-rule py-1.5">
              <span className="min-w-0">
                <span className="private name block truncate">{row.customer || `Row ${row.position + 2}`}</span>
                {row.state === 'refused' ? <span className="small font-medium text-brick">{row.reason}</span> : null}
              </span>
              <span className="text-right">
                {row.currency ? <Figure minor={row.minor} currency={row.currency} locale={locale} /> : null}
                <span className="small block text-soft">
                  {row.invoiceId ? (
                    <Link className="link link-small" href={`/ask/invoices/${row.invoiceId}` as Route}>
                      Invoice {row.number}
                    </Link>
                  ) : row.state === 'ready' ? (
                    'ready'
                  ) : (
                    'refused'
                  )}
                </span>
              </span>
            </li>
          ))}
        </ul>
      </article>
    </div>
  );
}
