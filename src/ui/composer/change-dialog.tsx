'use client';
import { useState } from 'react';
import { TickField } from '../kit/check';

import { FormDialog, type Told } from '../kit/form-dialog';

/** Making a sent invoice the next version. @param onSure resolves with what went wrong, or an empty text */
export function ChangeDialog({
  number,
  onSure,
  ...told
}: Told & { open: boolean; number: string; onSure: (tell: boolean) => Promise<string> }) {
  const [tell, setTell] = useState(true);
  return (
    <FormDialog
      {...told}
      title={`Update invoice ${number}?`}
      about="It keeps its number. The books take the difference."
      action="Update invoice"
      onSure={() => onSure(tell)}
    >
      <TickField
        label="Tell the customer by e-mail"
        checked={tell}
        onChange={(event) => setTell(event.target.checked)}
      />
    </FormDialog>
  );
}
