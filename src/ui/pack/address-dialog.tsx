'use client';
import { useState } from 'react';
import { FormDialog } from '../kit/form-dialog';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';
import { RecipientFields } from './recipient-fields';
import type { PackRowShown } from './shown';

/** Puts right where a sale goes that cannot go yet; where a house has no number, it is saved as it is. */
export function AddressDialog({ row, home, onClose }: { row: PackRowShown; home: string; onClose: () => void }) {
  const [recipient, setRecipient] = useState(row.recipient);
  const { busy, press } = usePress();
  return (
    <FormDialog
      title={`Where to, for ${row.name}`}
      about={`${row.kept}. ${row.block === 'no-number' ? 'Add it, or save the address as it is where the house has none.' : 'Complete it, and the sale can be packed.'}`}
      action="Save address"
      busy={busy}
      onClose={onClose}
      onSure={async () => {
        const answer = await press(`/api/pack/recipient/${row.id}`, recipient, `${row.name} can be packed`);
        if (answer.ok) onClose();
        return troubleOf(answer);
      }}
    >
      <RecipientFields recipient={recipient} home={home} onChange={setRecipient} />
    </FormDialog>
  );
}
