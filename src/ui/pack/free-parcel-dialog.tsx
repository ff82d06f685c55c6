'use client';
import { useState } from 'react';
import type { Recipient } from '@/core/parcel/handover';
import { NO_ADDRESS } from '@/core/place/address';
import { Field } from '../kit/field';
import { FormDialog } from '../kit/form-dialog';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';
import { RecipientFields } from './recipient-fields';

/** A parcel with something that nobody bought. */
export function FreeParcelDialog({ home, locale, onClose }: { home: string; locale: string; onClose: () => void }) {
  const [recipient, setRecipient] = useState<Recipient>({
    name: '',
    address: { ...NO_ADDRESS, country: home },
    email: '',
    phone: '',
    locale,
  });
  const [what, setWhat] = useState('');
  const { busy, press } = usePress();
  return (
    <FormDialog
      title="A parcel without a sale"
      about="A repair that goes home, samples, what was forgotten. It lies on the paper with the others."
      action="Put on the paper"
      busy={busy}
      onClose={onClose}
      onSure={async () => {
        const lines = [{ what, itemId: null, optionId: null, quantity: '1', valueMinor: 0 }];
        const answer = await press('/api/parcels', { customerId: null, recipient, lines });
        if (answer.ok) onClose();
        return troubleOf(answer);
      }}
    >
      <Field label="What is in it" value={what} maxLength={200} onChange={(event) => setWhat(event.target.value)} />
      <RecipientFields recipient={recipient} home={home} onChange={setRecipient} />
    </FormDialog>
  );
}
