'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useState } from 'react';
import type { OpenThing } from '@/core/keeping/open-things';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Field, FieldError } from '../kit/field';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';

/** What is open, each with what is done about it and where. */
export function OpenList({ open }: { open: readonly OpenThing[] }) {
  return (
    <ul className="mt-3 border-t border-rule">
      {open.map(({ kind, words, how, where }) => (
        <li key={kind} className="flex flex-wrap items-baseline gap-x-3 border-b border-rule py-2">
          <span className="font-medium">{words}.</span>
          <Link className="link" href={where as Route}>
            {how}
          </Link>
        </li>
      ))}
    </ul>
  );
}

/** Closes the business, once nothing is open and everything was taken along. @param eraseOn the day on which it would be erased, written */
export function ClosingPanel({
  name,
  open,
  isTakenAlong,
  eraseOn,
}: {
  name: string;
  open: readonly OpenThing[];
  isTakenAlong: boolean;
  eraseOn: string;
}) {
  const [asks, setAsks] = useState(false);
  const [typed, setTyped] = useState('');
  const [trouble, setTrouble] = useState('');
  const { busy, press } = usePress();
  const close = async () => {
    const answer = await press('/api/closing', { name: typed }, `${name} is closed`);
    if (answer.ok) return setAsks(false);
    setTrouble(troubleOf(answer));
  };
  if (open.length > 0)
    return (
      <>
        <p className="document pt-3">Before {name} can be closed, this is dealt with:</p>
        <OpenList open={open} />
      </>
    );
  return (
    <>
      <p className="document pt-3">
        Nothing is open. Once closed, links, pages and buttons stop, nothing more is written or charged, and everybody
        who works here can still look at everything. On {eraseOn}, when the law lets go of the last paper, all of it is
        erased. Until then an owner can open it again.
      </p>
      {isTakenAlong ? null : (
        <p className="mt-3 bg-ochre-tint px-3 py-2">Take everything along first: later nothing of it is left.</p>
      )}
      <Button className="mt-3" opens disabled={!isTakenAlong} onClick={() => setAsks(true)}>
        Close the business
      </Button>
      <Dialog
        open={asks}
        onOpenChange={(next) => {
          setAsks(next);
          setTrouble('');
        }}
        title={`Close ${name}?`}
        about={`It is erased on ${eraseOn}.`}
      >
        <form
          onSubmit={(event) => {
            event.preventDefault();
            void close();
          }}
        >
          <Field
            label="Type the name of the business"
            autoComplete="off"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />
          {trouble ? <FieldError>{trouble}</FieldError> : null}
          <div className="mt-5 flex justify-end gap-3">
            <Button onClick={() => setAsks(false)}>Leave it open</Button>
            <Button type="submit" look="sure" busy={busy} busyWords="Closing it">
              Close it
            </Button>
          </div>
        </form>
      </Dialog>
    </>
  );
}

/** Opens a business again that is not erased yet. @param eraseOn the day on which it is, written */
export function ReopenPanel({ eraseOn }: { eraseOn: string }) {
  const { busy, pressed } = usePress();
  return (
    <>
      <p className="document pt-3">
        Everything can be looked at and taken along until {eraseOn}; then it is erased. Opened again, everything is as
        it was; links, pages and buttons stay closed until somebody opens them.
      </p>
      <Button
        className="mt-3"
        busy={busy}
        busyWords="Opening it"
        onClick={() => void pressed('/api/closing/reopen', {}, 'The business is open again')}
      >
        Open it again
      </Button>
    </>
  );
}
