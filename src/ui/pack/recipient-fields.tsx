'use client';
import type { Recipient } from '@/core/parcel/handover';
import { AddressFields } from '../customer/address-fields';
import { Field } from '../kit/field';

/** Whom a parcel goes to, and where. */
export function RecipientFields({
  recipient,
  home,
  onChange,
}: {
  recipient: Recipient;
  home: string;
  onChange: (recipient: Recipient) => void;
}) {
  const set = (part: Partial<Recipient>) => onChange({ ...recipient, ...part });
  return (
    <div className="grid gap-3">
      <Field
        label="For"
        value={recipient.name}
        maxLength={160}
        onChange={(event) => set({ name: event.target.value })}
      />
      <AddressFields
        legend="Where to"
        name="address"
        address={recipient.address}
        home={home}
        troubles={{}}
        onChange={(address) => set({ address })}
      />
      <div className="grid gap-3 sm:grid-cols-2">
        <Field
          label="E-mail"
          type="email"
          value={recipient.email}
          maxLength={254}
          hint="Told when it leaves"
          onChange={(event) => set({ email: event.target.value })}
        />
        <Field
          label="Phone"
          value={recipient.phone}
          maxLength={40}
          onChange={(event) => set({ phone: event.target.value })}
        />
      </div>
    </div>
  );
}
