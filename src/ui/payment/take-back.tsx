'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { TickField } from '../kit/check';
import { Field } from '../kit/field';
import { FormDialog } from '../kit/form-dialog';
import { send, troubleOf } from '../kit/send';
import { say } from '../kit/toasts';

/** Asks before money that was written down by mistake is taken back. @param what the sum and how it came, in words */
export function TakeBackDialog({ paymentId, what, onClose }: { paymentId: string; what: string; onClose: () => void }) {
  const router = useRouter();
  const [reason, setReason] = useState('');
  const [tell, setTell] = useState(true);
  const [busy, setBusy] = useState(false);
  return (
    <FormDialog
      busy={busy}
      onClose={onClose}
      title={`Void ${what}`}
      about="It was recorded by mistake: the invoice owes it again, and its receipt does not count."
      action="Void it"
      danger
      onSure={async () => {
        setBusy(true);
        const answer = await send('POST', `/api/payments/${paymentId}/taken-back`, { reason, tell });
        setBusy(false);
        if (!answer.ok) return troubleOf(answer);
        say(`${what} is voided`);
        onClose();
        router.refresh();
        return '';
      }}
    >
      <Field label="Why" value={reason} maxLength={300} onChange={(event) => setReason(event.target.value)} />
      <TickField
        label="Tell the customer, who got the receipt"
        checked={tell}
        onChange={(event) => setTell(event.target.checked)}
      />
    </FormDialog>
  );
}
