'use client';
import { contrast } from '@/core/look/contrast';
import { AddressFields } from '../customer/address-fields';
import { Field, FieldError, TextField } from '../kit/field';
import type { Typed } from '../kit/form';
import { PictureField } from '../picture-field';
import { Heading } from './heading';
import type { ProfileTyped } from './profile-typed';
import { TransferAccounts } from './transfer-accounts';

const PAPER = '#fffdf9';
const READABLE = 4.5;

/** Who the business is, how it is reached, and how its papers look. */
export function ProfileWho({
  of: { values, set, at, troubles },
  currency,
}: {
  of: Typed<ProfileTyped>;
  /** The business’s. */
  currency: string;
}) {
  const pale = /^#[0-9a-f]{6}$/i.test(values.accent) && contrast(values.accent, PAPER) < READABLE;
  return (
    <>
      <div className="grid gap-4 sm:grid-cols-2">
        <Field
          label="Name"
          value={values.name}
          error={at('name')}
          onChange={(event) => set({ name: event.target.value })}
        />
        <Field
          label="E-mail address"
          type="email"
          value={values.email}
          error={at('email')}
          hint="Answers to your mails go there."
          onChange={(event) => set({ email: event.target.value })}
        />
        <Field label="Phone" value={values.phone} onChange={(event) => set({ phone: event.target.value })} />
        <Field
          label="Website"
          placeholder="none"
          value={values.website}
          onChange={(event) => set({ website: event.target.value })}
        />
        <Field
          label="Tax number"
          value={values.taxNumber}
          error={at('taxNumber')}
          onChange={(event) => set({ taxNumber: event.target.value })}
        />
        <div>
          <label className="label mb-1" htmlFor="accent">
            Colour of your documents
          </label>
          <div className="flex items-center gap-3">
            <input
              id="accent"
              type="color"
              className="h-9 w-14"
              value={values.accent}
              onChange={(event) => set({ accent: event.target.value })}
            />
            <span className="text-soft">{values.accent}</span>
          </div>
          {pale ? (
            <p className="small mt-1 font-medium text-ochre">
              This is hard to read on paper. A darker one reads better.
            </p>
          ) : null}
        </div>
      </div>
      <TextField
        label="What you do, in a sentence"
        rows={2}
        maxLength={400}
        value={values.description}
        error={at('description')}
        hint="The office that looks who stands behind your business reads it, and the bank of who disputes a payment."
        onChange={(event) => set({ description: event.target.value })}
      />
      <PictureField name="logo" purpose="logo" fileId={values.logoId} onPicture={(logoId) => set({ logoId })} />
      <AddressFields
        legend="Address"
        name="place"
        address={values.place}
        home={values.country}
        troubles={troubles}
        onChange={(place) => set({ place })}
      />
      <Heading>Bank account for transfers</Heading>
      <TransferAccounts bank={values.bank} currency={currency} onChange={(bank) => set({ bank })} />
      {at('bank') ? <FieldError>{at('bank')}</FieldError> : null}
    </>
  );
}
