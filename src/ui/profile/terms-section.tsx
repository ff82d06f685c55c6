'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Dialog } from '../dialog';
import { Field, FieldError, TextField } from '../field';
import { send, troubleOf } from '../send';
import { say, sayTrouble } from '../toasts';

export type TermsText = { readonly id: string; readonly name: string; readonly version: number; readonly text: string };

/** Terms and conditions: a changed text is a new version, and what somebody accepted before stays as it was. */
export function TermsSection({ terms, mayAsk }: { terms: readonly TermsText[]; mayAsk: boolean }) {
  const router = useRouter();
  const [open, setOpen] = useState<{ id: string | null; name: string; text: string } | null>(null);
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);

  async function keep() {
    if (!open) return;
    setBusy(true);
    const answer = await send('POST', '/api/terms', open);
    setBusy(false);
    if (!answer.ok) return setTrouble(troubleOf(answer));
    setOpen(null);
    setTrouble('');
    say('The terms are kept');
    router.refresh();
  }
  async function drop(id: string) {
    const answer = await send('DELETE', `/api/terms/${id}`);
    if (!answer.ok) return sayTrouble(answer.words);
    setOpen(null);
    router.refresh();
  }

  return (
    <section aria-label="Terms and conditions">
      <h2 className="title-section border-b border-ink pb-1">Terms and conditions</h2>
      <ul>
        {terms.map((one) => (
          <li key={one.id} className="flex items-baseline gap-4 border-b border-rule py-2">
            <span className="document flex-1">{one.name}</span>
            <span className="text-soft">version {one.version}</span>
            <button type="button" className="link" disabled={!mayAsk} onClick={() => setOpen(one)}>
              Change
            </button>
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="link mt-2"
        disabled={!mayAsk}
        onClick={() => setOpen({ id: null, name: '', text: '' })}
      >
        Write terms
      </button>
      <Dialog
        open={open !== null}
        onOpenChange={(next) => !next && setOpen(null)}
        title={open?.id ? 'Change the terms' : 'Write terms'}
        about="Invoices already sent keep the version that they were sent with."
      >
        <form
          className="grid gap-4"
          onSubmit={(event) => {
            event.preventDefault();
            void keep();
          }}
        >
          <Field
            label="Name"
            maxLength={120}
            value={open?.name ?? ''}
            onChange={(event) => open && setOpen({ ...open, name: event.target.value })}
          />
          <TextField
            label="Text"
            rows={10}
            maxLength={40_000}
            value={open?.text ?? ''}
            onChange={(event) => open && setOpen({ ...open, text: event.target.value })}
          />
          {trouble ? <FieldError>{trouble}</FieldError> : null}
          <div className="flex justify-end gap-3">
            {open?.id ? (
              <button type="button" className="link mr-auto" onClick={() => open.id && void drop(open.id)}>
                Take off the list
              </button>
            ) : null}
            <button type="submit" className="btn btn-go" disabled={busy || !open?.name.trim() || !open.text.trim()}>
              {open?.id ? 'Keep as a new version' : 'Keep terms'}
            </button>
          </div>
        </form>
      </Dialog>
    </section>
  );
}
