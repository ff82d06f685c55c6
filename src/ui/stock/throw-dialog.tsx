'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Button } from '../kit/button';
import { Field } from '../kit/field';
import { useTyped } from '../kit/form';
import { TypedDialog } from '../kit/form-dialog';
import { NumberField } from '../kit/number-input';
import { send } from '../kit/send';
import { say } from '../kit/toasts';

type Values = { requestKey: string; quantity: string; why: string };
type Thing = { readonly itemId: string; readonly optionId: string | null; readonly name: string };

const rules = () => import('@/input/stock-input').then(({ ThrownInput }) => ThrownInput);

function ThrowDialog({ thing: { itemId, optionId, name }, onClose }: { thing: Thing; onClose: () => void }) {
  const router = useRouter();
  const form = useTyped<Values>({
    start: { requestKey: crypto.randomUUID(), quantity: '1', why: '' },
    shape: rules,
    body: (values) => ({ ...values, itemId, optionId }),
    send: (body) => send('POST', '/api/stock/thrown', body),
    done: () => {
      say('It is taken out of the stock');
      onClose();
      router.refresh();
    },
  });
  const { values, set, at } = form;
  return (
    <TypedDialog
      of={form}
      title="Take out of the stock"
      about={`What of ${name} broke, was lost, or is used by yourselves. It leaves at what one cost on average.`}
      action="Take it out"
      onClose={onClose}
    >
      <NumberField
        label="How many"
        value={values.quantity}
        error={at('quantity')}
        onChange={(event) => set({ quantity: event.target.value })}
      />
      <Field
        label="Why"
        value={values.why}
        error={at('why')}
        maxLength={200}
        onChange={(event) => set({ why: event.target.value })}
      />
    </TypedDialog>
  );
}

/** Takes something out of the stock that nobody bought. */
export function TakeOut({ thing }: { thing: Thing }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button onClick={() => setOpen(true)}>Take some out</Button>
      {open ? <ThrowDialog thing={thing} onClose={() => setOpen(false)} /> : null}
    </>
  );
}
