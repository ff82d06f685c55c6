'use client';
import { useState } from 'react';
import type { FirstSetting } from '@/core/beginning/first-setting';
import { Button } from '../kit/button';
import { Field } from '../kit/field';
import { Form, useTyped } from '../kit/form';
import { send } from '../kit/send';
import { type Place, SettingFields } from './setting-fields';

/** A further business of whoever is signed in: its name, and what it counts and writes in. */
export function AnotherForm({ first, countries }: { first: FirstSetting; countries: readonly Place[] }) {
  const [key] = useState(() => crypto.randomUUID());
  const [leaving, setLeaving] = useState(false);
  const form = useTyped({
    start: { key, business: '', ...first },
    shape: () => import('@/input/people-input').then(({ AnotherInput }) => AnotherInput),
    send: (body) => send<{ invoiceId: string }>('POST', '/api/desks/new', body),
    done: ({ invoiceId }) => {
      setLeaving(true);
      location.assign(invoiceId ? `/ask/compose/${invoiceId}` : '/today');
    },
  });
  const { values, set, at } = form;
  return (
    <Form
      of={form}
      legend="Another business"
      actions={
        <Button type="submit" look="go" busy={form.busy || leaving} busyWords="Getting its desk ready">
          Begin it
        </Button>
      }
    >
      <Field
        label="Its name"
        autoComplete="organization"
        value={values.business}
        error={at('business')}
        onChange={(event) => set({ business: event.target.value })}
      />
      <SettingFields from="As here" values={values} set={set} countries={countries} />
    </Form>
  );
}
