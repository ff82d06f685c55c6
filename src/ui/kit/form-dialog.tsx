'use client';
import { type ReactNode, useState } from 'react';
import { Button } from './button';
import { Dialog } from './dialog';
import { FieldError } from './field';
import { Form, type Typed } from './form';

/** What every dialog with a form is told. */
export type Told = { busy: boolean; onClose: () => void };

/** What leads out of a dialog: never the same word as its action. */
const backWords = (action: string): string => (/^cancel/i.test(action) ? 'Back' : 'Cancel');

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
          <Button onClick={onClose}>{backWords(action)}</Button>
          <Button type="submit" look={danger ? 'sure' : 'go'} busy={busy} disabled={disabled} busyWords="One moment">
            {action}
          </Button>
        </div>
      </form>
    </Dialog>
  );
}

/** A dialog with a form that knows its places. */
export function TypedDialog<Values>({
  of,
  title,
  about,
  action,
  onClose,
  children,
}: {
  of: Typed<Values>;
  title: string;
  about: string;
  action: string;
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <Dialog open onOpenChange={(next) => !next && onClose()} title={title} about={about}>
      <Form
        of={of}
        legend={title}
        actions={
          <div className="mt-1 flex justify-end gap-3">
            <Button onClick={onClose}>{backWords(action)}</Button>
            <Button type="submit" look="go" busy={of.busy} busyWords="One moment">
              {action}
            </Button>
          </div>
        }
      >
        {children}
      </Form>
    </Dialog>
  );
}
