'use client';
import type { ReactNode } from 'react';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { say, sayTrouble } from '../kit/toasts';

/** A secret, shown this once. */
export function SecretDialog({
  title,
  about,
  secret,
  children,
  onClose,
}: {
  title: string;
  about: string;
  secret: string;
  /** How it is used. */
  children: ReactNode;
  onClose: () => void;
}) {
  const copy = () =>
    void navigator.clipboard.writeText(secret).then(
      () => say('It is copied'),
      () => sayTrouble('It could not be copied. Mark it.'),
    );
  return (
    <Dialog open title={title} about={about} onOpenChange={(open) => open || onClose()}>
      <p className="private select-all break-all border-y border-rule py-3 font-serif text-[17px]/7">{secret}</p>
      <p className="small mt-3 text-soft">{children}</p>
      <div className="mt-4 flex items-center gap-4">
        <Button look="go" onClick={onClose}>
          I have kept it
        </Button>
        <Button look="link" onClick={copy}>
          Copy
        </Button>
      </div>
    </Dialog>
  );
}
