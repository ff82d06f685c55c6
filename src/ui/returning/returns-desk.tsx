'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useState } from 'react';
import { spacedNumber } from '@/core/parcel/number';
import { Button } from '../kit/button';
import { usePress } from '../kit/press';
import { AnswerDialog } from './answer-dialog';
import { ReceiveDialog } from './receive-dialog';
import type { ReturnRowShown } from './shown';

type May = { readonly answer: boolean; readonly pack: boolean; readonly giveBack: boolean };

/** What comes back: asked for, awaited, received; each with what is to be done next. */
export function ReturnsDesk({ rows, may }: { rows: readonly ReturnRowShown[]; may: May }) {
  return (
    <div className="mx-auto max-w-[1180px] px-4 pb-12 pt-5 sm:px-7">
      <h1 className="title-screen">Returns</h1>
      {rows.length === 0 ? (
        <p className="document py-6 text-soft">
          Nothing comes back. What customers ask to send back on their page comes here; how many days they may stands
          under Parcel profiles.
        </p>
      ) : (
        <ul className="mt-4 grid max-w-[820px] gap-4">
          {rows.map((row) => (
            <li key={row.id} className="sheet px-6 py-4">
              <One row={row} may={may} />
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

function One({ row, may }: { row: ReturnRowShown; may: May }) {
  const { busy, pressed } = usePress();
  const [open, setOpen] = useState<'allow' | 'refuse' | 'receive' | null>(null);
  const deed = (which: 'exchange' | 'close', done: string) =>
    void pressed(`/api/returns/${row.id}/deed`, { deed: which }, done);
  return (
    <article aria-label={`Return of ${row.name}`}>
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h2 className="private min-w-0 flex-1 break-words font-serif text-[18px]/6 font-medium">{row.name}</h2>
        <span className={row.state === 'asked' ? 'font-medium text-ochre' : 'text-soft'}>{row.stateWords}</span>
      </div>
      <p className="small text-soft">
        {row.saleHref ? (
          <Link className="link" href={row.saleHref as Route}>
            {row.sale}
          </Link>
        ) : (
          row.sale
        )}
        {` · ${row.when} · ${row.reason}`}
        {row.number ? ` · label ${spacedNumber(row.number)}` : ''}
      </p>
      {row.way ? <p className="small text-dusk">{row.way}</p> : null}
      <ul className="mt-2">
        {row.lines.map(({ line, what, quantity, toStock, thrown }) => (
          <li key={line} className="document private flex flex-wrap items-baseline gap-x-3 border-b border-rule py-1">
            <span className="min-w-0 flex-1 break-words">{quantity === '1' ? what : `${what}, ${quantity}`}</span>
            {row.state === 'received' ? (
              <span className="small text-soft">
                {[toStock === '0' ? '' : `${toStock} in stock again`, thrown === '0' ? '' : `${thrown} thrown away`]
                  .filter(Boolean)
                  .join(', ') || 'did not come'}
              </span>
            ) : null}
          </li>
        ))}
      </ul>
      {row.words ? <p className="private mt-2 whitespace-pre-line break-words italic">{row.words}</p> : null}
      {row.fileId ? (
        <p className="mt-1">
          <a className="link" href={`/files/own/${row.fileId}`} target="_blank" rel="noreferrer">
            Their picture
          </a>
        </p>
      ) : null}
      {row.answer ? <p className="small private mt-1 text-soft">Answered: {row.answer}</p> : null}
      <p className="mt-3 flex flex-wrap items-center gap-x-5 gap-y-2">
        {row.state === 'asked' && may.answer ? (
          <>
            <Button onClick={() => setOpen('allow')}>Allow</Button>
            <Button look="link" onClick={() => setOpen('refuse')}>
              Refuse
            </Button>
          </>
        ) : null}
        {row.state === 'allowed' && may.pack ? <Button onClick={() => setOpen('receive')}>It has come</Button> : null}
        {row.state === 'allowed' && row.number ? (
          <a className="link" href={`/api/returns/${row.id}/label`} target="_blank" rel="noreferrer">
            Its label
          </a>
        ) : null}
        {row.state === 'received' && may.pack ? (
          <Button busy={busy} onClick={() => deed('exchange', 'The same goods are packed anew')}>
            Exchange: send again
          </Button>
        ) : null}
        {row.state === 'received' && may.giveBack && row.paymentId ? (
          <Link className="link" href={`/money/payments/${row.paymentId}` as Route}>
            Give money back
          </Link>
        ) : null}
        {(row.state === 'received' || row.state === 'allowed') && may.pack ? (
          <Button look="link" disabled={busy} onClick={() => deed('close', 'The return is done')}>
            {row.state === 'received' ? 'It is done' : 'It never came'}
          </Button>
        ) : null}
      </p>
      {row.state === 'received' && row.paymentId && may.giveBack ? (
        <p className="small mt-1 text-soft">
          What is good lies in stock already, and is not counted once more when the money goes back.
        </p>
      ) : null}
      {open === 'allow' || open === 'refuse' ? (
        <AnswerDialog row={row} allow={open === 'allow'} onClose={() => setOpen(null)} />
      ) : null}
      {open === 'receive' ? <ReceiveDialog row={row} onClose={() => setOpen(null)} /> : null}
    </article>
  );
}
