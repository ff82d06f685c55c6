'use client';
import { Upload } from 'lucide-react';
import type { Route } from 'next';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { FileDrop } from '../import/file-drop';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { FieldError } from '../kit/field';
import { troubleOf } from '../kit/send';
import { sendFile } from '../kit/send-file';

type BroughtIn = { readonly id: string; readonly notKept: readonly string[] };

/** Reads an invoice made elsewhere; says what of it the draft could not keep, and goes there. */
export function BringIn() {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const [read, setRead] = useState<BroughtIn | null>(null);
  const show = (next: boolean) => {
    setOpen(next);
    setTrouble('');
    setRead(null);
  };
  const goTo = (id: string) => router.push(`/ask/compose/${id}` as Route);
  async function bringIn(picked: File) {
    setBusy(true);
    setTrouble('');
    const answer = await sendFile<BroughtIn>(`/api/einvoice?name=${encodeURIComponent(picked.name)}`, picked);
    setBusy(false);
    if (!answer.ok) return setTrouble(troubleOf(answer));
    if (answer.value.notKept.length === 0) return goTo(answer.value.id);
    setRead(answer.value);
  }
  return (
    <>
      <button
        type="button"
        className="grid size-[30px] flex-none place-items-center rounded-control hover:bg-wash"
        aria-label="Import an invoice made elsewhere"
        title="Import an invoice made elsewhere"
        onClick={() => show(true)}
      >
        <Upload size={16} strokeWidth={1.6} aria-hidden="true" />
      </button>
      <Dialog
        open={open}
        onOpenChange={show}
        title={read ? 'Imported, with something to look at' : 'An invoice made elsewhere'}
        about={
          read
            ? 'The draft is made. What it could not keep also stands in its memo, which only you see.'
            : 'An e-invoice (UBL or Cross Industry Invoice) or a PDF with one inside is read into a draft. Any other PDF is the document itself.'
        }
      >
        {read ? (
          <>
            <ul className="grid list-disc gap-1.5 pl-5">
              {read.notKept.map((words) => (
                <li key={words}>{words}</li>
              ))}
            </ul>
            <div className="mt-5 flex justify-end">
              <Button look="go" autoFocus onClick={() => goTo(read.id)}>
                Go to the draft
              </Button>
            </div>
          </>
        ) : (
          <>
            <FileDrop
              label={busy ? 'Reading it' : 'Choose a file'}
              accept=".xml,.pdf,application/xml,application/pdf"
              onFile={bringIn}
            />
            {trouble ? <FieldError>{trouble}</FieldError> : null}
          </>
        )}
      </Dialog>
    </>
  );
}
