'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { OpenThing } from '@/core/keeping/open-things';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { FieldError } from '../kit/field';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';
import { OpenList } from './closing-panel';

/** A customer's data: taken along as one file, or erased. @param papersUntil until when papers name them, written; empty where none does */
export function CustomerData({
  id,
  name,
  open,
  papersUntil,
}: {
  id: string;
  name: string;
  open: readonly OpenThing[];
  papersUntil: string;
}) {
  const router = useRouter();
  const [asks, setAsks] = useState(false);
  const [trouble, setTrouble] = useState('');
  const { busy, press } = usePress();
  const erase = async () => {
    const answer = await press(`/api/customers/${id}/erase`, {}, 'The customer is erased');
    if (!answer.ok) return setTrouble(troubleOf(answer));
    setAsks(false);
    router.push('/records/customers');
  };
  return (
    <section aria-label="Their data" className="mt-7">
      <h2 className="title-section border-b border-ink pb-1.5">Their data</h2>
      <p className="flex flex-wrap items-baseline gap-x-5 gap-y-1 pt-2">
        <a className="link" href={`/files/customers/${id}`}>
          Everything as one file
        </a>
        <Button look="link" opens onClick={() => setAsks(true)}>
          Erase this customer
        </Button>
      </p>
      <Dialog
        open={asks}
        onOpenChange={(next) => {
          setAsks(next);
          setTrouble('');
        }}
        title={open.length > 0 ? 'Not yet' : 'Erase this customer?'}
        about={open.length > 0 ? 'Something is still open between you:' : 'This cannot be taken back.'}
      >
        {open.length > 0 ? (
          <OpenList open={open} />
        ) : (
          <p className="document">
            <span className="private">{name}</span> is gone at once: name, addresses, cards, mails, answers and notes.
            What was sold, and for how much, stays in your books.{' '}
            {papersUntil
              ? `Invoices and receipts name them until ${papersUntil}, because the law wants that; then they are blanked too.`
              : 'No paper names them.'}
          </p>
        )}
        {trouble ? <FieldError>{trouble}</FieldError> : null}
        <div className="mt-5 flex justify-end gap-3">
          <Button onClick={() => setAsks(false)}>{open.length > 0 ? 'Close' : 'Keep them'}</Button>
          {open.length > 0 ? null : (
            <Button look="sure" busy={busy} busyWords="Erasing" onClick={() => void erase()}>
              Erase
            </Button>
          )}
        </div>
      </Dialog>
    </section>
  );
}
