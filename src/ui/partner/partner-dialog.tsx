'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Field } from '../kit/field';
import { useTyped } from '../kit/form';
import { TypedDialog } from '../kit/form-dialog';
import { send, troubleOf } from '../kit/send';
import { say } from '../kit/toasts';

export type ShownPartner = {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly account: string;
  readonly sums: readonly { readonly currency: string; readonly payments: number; readonly earnedMinor: number }[];
};

type PartnerTyped = Pick<ShownPartner, 'name' | 'email' | 'account'>;

const rules = () => import('@/input/offer-records-input').then(({ PartnerInput }) => PartnerInput);
const SILENT = { words: '', wrong: '' };

/** Writes a new partner, or changes one; the bank is asked whose the account is. */
export function PartnerDialog({ partner, onClose }: { partner: ShownPartner | null; onClose: () => void }) {
  const router = useRouter();
  const [bank, setBank] = useState(SILENT);
  const form = useTyped<PartnerTyped>({
    start: { name: partner?.name ?? '', email: partner?.email ?? '', account: partner?.account ?? '' },
    shape: rules,
    send: (body) => send(partner ? 'PUT' : 'POST', partner ? `/api/partners/${partner.id}` : '/api/partners', body),
    done: (_, { name }) => {
      say(`${name} is saved`);
      onClose();
      router.refresh();
    },
  });
  const { values, set, at } = form;

  async function askBank(number: string) {
    if (!number.trim()) return setBank(SILENT);
    const answer = await send<{ holder: string }>('GET', `/api/partners/account?number=${encodeURIComponent(number)}`);
    setBank(
      answer.ok
        ? { words: `The bank has it in the name of ${answer.value.holder}.`, wrong: '' }
        : { words: '', wrong: troubleOf(answer) },
    );
  }

  return (
    <TypedDialog
      of={form}
      title={partner ? 'Edit partner' : 'New partner'}
      about="What they get of a payment is said in each offer."
      action="Save partner"
      onClose={onClose}
    >
      <Field
        label="Name"
        value={values.name}
        maxLength={160}
        error={at('name')}
        onChange={(event) => set({ name: event.target.value })}
      />
      <Field
        label="E-mail address"
        value={values.email}
        maxLength={200}
        error={at('email')}
        onChange={(event) => set({ email: event.target.value })}
      />
      <Field
        label="Share account"
        hint={bank.words || 'Twelve digits. The bank is asked whose it is; their share is paid out to it.'}
        error={bank.wrong || at('account')}
        onBlur={(event) => void askBank(event.target.value)}
        value={values.account}
        maxLength={60}
        onChange={(event) => set({ account: event.target.value })}
      />
    </TypedDialog>
  );
}
