'use client';
import { useRouter } from 'next/navigation';
import { Field } from '../kit/field';
import { useTyped } from '../kit/form';
import { TypedDialog } from '../kit/form-dialog';
import { send } from '../kit/send';
import { say } from '../kit/toasts';

export type ShownPartner = {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly sums: readonly { readonly currency: string; readonly payments: number; readonly earnedMinor: number }[];
};

type PartnerTyped = Pick<ShownPartner, 'name' | 'email'>;

const rules = () => import('@/input/offer-records-input').then(({ PartnerInput }) => PartnerInput);

/** Writes a new partner, or changes one. */
export function PartnerDialog({ partner, onClose }: { partner: ShownPartner | null; onClose: () => void }) {
  const router = useRouter();
  const form = useTyped<PartnerTyped>({
    start: { name: partner?.name ?? '', email: partner?.email ?? '' },
    shape: rules,
    send: (body) => send(partner ? 'PUT' : 'POST', partner ? `/api/partners/${partner.id}` : '/api/partners', body),
    done: (_, { name }) => {
      say(`${name} is saved`);
      onClose();
      router.refresh();
    },
  });
  const { values, set, at } = form;

  return (
    <TypedDialog
      of={form}
      title={partner ? 'Edit partner' : 'New partner'}
      about="What they get of a payment is said in each offer; the account that it goes to stands with the payouts."
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
        hint="Their statement goes there each month, with the link to their page."
        value={values.email}
        maxLength={200}
        error={at('email')}
        onChange={(event) => set({ email: event.target.value })}
      />
    </TypedDialog>
  );
}
