'use client';
import { type ReactNode, useState } from 'react';
import { Dialog } from './dialog';
import { FieldError } from './field';

/** What every dialog with a form is told. */
export type Told = { busy: boolean; onClose: () => void };

/** A dialog with its form: what went wrong stands above the two buttons. @param onSure resolves with what went wrong, or an empty text */
export function FormDialog({
  open = true,
  title,
  about,
  action,
  busy,
  danger = false,
  disabled = false,
  onClose,
  onSure,
  children,
}: Told & {
  open?: boolean;
  title: string;
  about: string;
  action: string;
  danger?: boolean;
  disabled?: boolean;
  onSure: () => string | Promise<string>;
  children: ReactNode;
}) {
  const [trouble, setTrouble] = useState('');
  return (
    <Dialog open={open} onOpenChange={(next) => !next && onClose()} title={title} about={about}>
      <form
        className="grid gap-4"
        onSubmit={async (event) => {
          event.preventDefault();
          setTrouble(await onSure());
        }}
      >
        {children}
        {trouble ? <FieldError>{trouble}</FieldError> : null}
        <div className="mt-1 flex justify-end gap-3">
          <button type="button" className="btn" onClick={onClose}>
            Leave it
          </button>
          <button type="submit" className={`btn ${danger ? 'btn-sure' : 'btn-go'}`} disabled={busy || disabled}>
            {busy ? 'One moment' : action}
          </button>
        </div>
      </form>
    </Dialog>
  );
}
