'use client';
import { useState } from 'react';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Field } from '../kit/field';

/** Asks for a name; what went wrong with it is said at the field. @param onName resolves with what went wrong, or an empty text */
export function NameDialog({
  open,
  title,
  about,
  label,
  action,
  onClose,
  onName,
}: {
  open: boolean;
  title: string;
  about?: string;
  label: string;
  action: string;
  onClose: () => void;
  onName: (name: string) => Promise<string>;
}) {
  const [name, setName] = useState('');
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  return (
    <Dialog open={open} onOpenChange={(next) => !next && onClose()} title={title} {...(about ? { about } : {})}>
      <form
        noValidate
        onSubmit={async (event) => {
          event.preventDefault();
          event.stopPropagation();
          setBusy(true);
          setTrouble(await onName(name.trim()));
          setBusy(false);
        }}
      >
        <Field
          label={label}
          value={name}
          autoFocus
          maxLength={80}
          error={trouble || undefined}
          onChange={(event) => setName(event.target.value)}
        />
        <div className="mt-5 flex justify-end gap-3">
          <Button onClick={onClose}>Leave it</Button>
          <Button type="submit" look="go" disabled={busy || !name.trim()}>
            {action}
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
