'use client';
import { useState } from 'react';
import { Button } from '../kit/button';
import { TickField } from '../kit/check';
import { Dialog } from '../kit/dialog';
import { Field } from '../kit/field';

/** Asks for a name; what went wrong with it is said at the field. @param onName resolves with what went wrong, or an empty text */
export function NameDialog({
  open,
  title,
  about,
  label,
  action,
  files = 0,
  onClose,
  onName,
}: {
  open: boolean;
  title: string;
  about?: string;
  label: string;
  action: string;
  /** How many files could come along. */
  files?: number;
  onClose: () => void;
  onName: (name: string, withFiles: boolean) => Promise<string>;
}) {
  const [name, setName] = useState('');
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const [withFiles, setWithFiles] = useState(false);
  return (
    <Dialog open={open} onOpenChange={(next) => !next && onClose()} title={title} {...(about ? { about } : {})}>
      <form
        noValidate
        onSubmit={async (event) => {
          event.preventDefault();
          event.stopPropagation();
          setBusy(true);
          setTrouble(await onName(name.trim(), withFiles));
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
        {files > 0 ? (
          <div className="mt-3">
            <TickField
              label={files === 1 ? 'With its file' : `With its ${files} files`}
              checked={withFiles}
              onChange={(event) => setWithFiles(event.target.checked)}
            />
          </div>
        ) : null}
        <div className="mt-5 flex justify-end gap-3">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="go" disabled={busy || !name.trim()}>
            {action}
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
