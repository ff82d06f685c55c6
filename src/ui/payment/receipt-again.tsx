'use client';
import { useState } from 'react';
import { Button } from '../kit/button';
import { Field } from '../kit/field';
import { FormDialog } from '../kit/form-dialog';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';

/** Sends the receipt of a payment by hand: for the first time, or again, also elsewhere and under an own reference. */
export function ReceiptAgain({
  paymentId,
  email,
  mailed,
  ownReference,
}: {
  paymentId: string;
  email: string;
  /** Whether it went out by itself already. */
  mailed: boolean;
  ownReference: string;
}) {
  const [open, setOpen] = useState(false);
  const [to, setTo] = useState(email);
  const [reference, setReference] = useState(ownReference);
  const { busy, press } = usePress({ keyed: true });
  return (
    <>
      <Button look="link" onClick={() => setOpen(true)}>
        {mailed ? 'Send the receipt again' : 'Send the receipt'}
      </Button>
      <FormDialog
        open={open}
        title="Send the receipt"
        about="An e-mail with the receipt as a PDF, in the payer’s language."
        action="Send receipt"
        busy={busy}
        onClose={() => setOpen(false)}
        onSure={async () => {
          const answer = await press(
            `/api/payments/${paymentId}/receipt`,
            { to, reference },
            `The receipt is on its way to ${to}`,
          );
          if (answer.ok) setOpen(false);
          return answer.ok ? '' : troubleOf(answer);
        }}
      >
        <Field label="To" type="email" value={to} maxLength={200} onChange={(event) => setTo(event.target.value)} />
        <Field
          label="Your own reference"
          hint="Printed on the receipt, if you keep one."
          value={reference}
          maxLength={60}
          onChange={(event) => setReference(event.target.value)}
        />
      </FormDialog>
    </>
  );
}
