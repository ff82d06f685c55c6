'use client';
import { useState } from 'react';
import { Button } from '../kit/button';
import { TermsDialog, type TermsText } from './terms-dialog';

export type { TermsText };

/** Terms and conditions: a changed text is a new version, and what somebody accepted before stays as it was. */
export function TermsSection({ terms, mayAsk }: { terms: readonly TermsText[]; mayAsk: boolean }) {
  /** The terms that are written: null for new ones. */
  const [open, setOpen] = useState<TermsText | null | undefined>();

  return (
    <section aria-label="Terms and conditions">
      <h2 className="title-section border-b border-ink pb-1">Terms and conditions</h2>
      <ul>
        {terms.map((one) => (
          <li key={one.id} className="flex items-baseline gap-4 border-b border-rule py-2">
            <span className="document flex-1">{one.name}</span>
            <span className="text-soft">version {one.version}</span>
            <Button look="link" opens disabled={!mayAsk} onClick={() => setOpen(one)}>
              Edit
            </Button>
          </li>
        ))}
      </ul>
      <Button look="link" opens className="mt-2" disabled={!mayAsk} onClick={() => setOpen(null)}>
        Write terms
      </Button>
      {open === undefined ? null : <TermsDialog terms={open} onClose={() => setOpen(undefined)} />}
    </section>
  );
}
