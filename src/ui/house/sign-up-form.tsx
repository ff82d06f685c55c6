'use client';
import { useEffect, useState } from 'react';
import type { FirstSetting } from '@/core/beginning/first-setting';
import { localeIn } from '@/core/beginning/first-setting';
import { USUAL_CURRENCIES } from '@/core/money/currency';
import { countryName } from '@/core/place/address';
import { LANGUAGES } from '@/core/words/words';
import { Button } from '../kit/button';
import { Field } from '../kit/field';
import { Form, useTyped } from '../kit/form';
import { SelectField } from '../kit/select';
import { type Answer, send } from '../kit/send';
import { AddressField, NewPasswordField } from './access-fields';

type Begun = { readonly invoiceId: string | null };
type Place = { readonly code: string; readonly name: string };

const rules = () => import('@/input/people-input').then(({ SignUpInput }) => SignUpInput);

/** Does the work that is asked of a computer first, then sends. */
async function signedUp(body: object): Promise<Answer<Begun>> {
  const { doneWork } = await import('../payer/work');
  const work = await doneWork('/api/sign-up/challenge');
  return send<Begun>('POST', '/api/sign-up', work ? { ...body, work } : body);
}

/** A zone as people call it: its town. */
const townOf = (zone: string): string => (zone.split('/').at(-1) ?? zone).replaceAll('_', ' ');

/** What is guessed of where somebody works, in one sentence; it opens to be changed. */
function SettingFields({
  values,
  set,
  countries,
}: {
  values: FirstSetting;
  set: (part: Partial<FirstSetting>) => void;
  countries: readonly Place[];
}) {
  const [open, setOpen] = useState(false);
  const language = values.locale.slice(0, 2);
  const { country, zone, currency } = values;
  if (!open) {
    const called = LANGUAGES[language as keyof typeof LANGUAGES]?.name ?? 'English';
    return (
      <p className="text-soft">
        Taken from your browser: <b className="font-semibold text-ink">{countryName(country, 'en')}</b>, time of{' '}
        <b className="font-semibold text-ink">{townOf(zone)}</b>, sums in{' '}
        <b className="font-semibold text-ink">{currency}</b>, customers read{' '}
        <b className="font-semibold text-ink">{called}</b>.{' '}
        <Button look="link" opens onClick={() => setOpen(true)}>
          Change
        </Button>
      </p>
    );
  }
  return (
    <div className="grid gap-4 sm:grid-cols-2">
      <SelectField
        label="Country"
        value={country}
        onChange={({ target }) => set({ country: target.value, locale: localeIn(language, target.value) })}
      >
        {countries.map(({ code, name }) => (
          <option key={code} value={code}>
            {name}
          </option>
        ))}
      </SelectField>
      <SelectField label="Currency" value={currency} onChange={({ target }) => set({ currency: target.value })}>
        {[...new Set([currency, ...USUAL_CURRENCIES])].map((code) => (
          <option key={code} value={code}>
            {code}
          </option>
        ))}
      </SelectField>
      <SelectField label="Time zone" value={zone} onChange={({ target }) => set({ zone: target.value })}>
        {[...new Set([zone, ...Intl.supportedValuesOf('timeZone')])].map((one) => (
          <option key={one} value={one}>
            {one.replaceAll('_', ' ')}
          </option>
        ))}
      </SelectField>
      <SelectField
        label="Customers read"
        value={language}
        onChange={({ target }) => set({ locale: localeIn(target.value, country) })}
      >
        {Object.entries(LANGUAGES).map(([code, { name }]) => (
          <option key={code} value={code}>
            {name}
          </option>
        ))}
      </SelectField>
      <p className="small text-soft sm:col-span-2">
        Zone and currency stay with the business: what was counted was counted in them.
      </p>
    </div>
  );
}

/** Four answers, and one is at the desk. */
export function SignUpForm({ first, countries }: { first: FirstSetting; countries: readonly Place[] }) {
  const [key] = useState(() => crypto.randomUUID());
  const [leaving, setLeaving] = useState(false);
  const form = useTyped({
    start: { key, name: '', business: '', email: '', password: '', ...first },
    shape: rules,
    send: signedUp,
    done: ({ invoiceId }: Begun) => {
      setLeaving(true);
      location.assign(invoiceId ? `/ask/compose/${invoiceId}` : '/today');
    },
  });
  const { values, set, at } = form;

  // The browser knows its zone, which the request does not say.
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when the page comes up
  useEffect(() => {
    const { timeZone } = new Intl.DateTimeFormat().resolvedOptions();
    const asked = new URLSearchParams({ zone: timeZone, languages: navigator.languages.join(',').slice(0, 200) });
    void send<FirstSetting>('GET', `/api/sign-up/setting?${asked}`).then((answer) => answer.ok && set(answer.value));
  }, []);

  return (
    <Form
      of={form}
      legend="Beginning"
      actions={
        <Button type="submit" look="go" busy={form.busy || leaving} busyWords="Getting your desk ready">
          Write your first invoice
        </Button>
      }
    >
      <Field
        label="Your name"
        name="name"
        autoComplete="name"
        value={values.name}
        error={at('name')}
        onChange={(event) => set({ name: event.target.value })}
      />
      <Field
        label="Your business"
        name="organization"
        autoComplete="organization"
        hint="As your customers know it. It can be your own name."
        value={values.business}
        error={at('business')}
        onChange={(event) => set({ business: event.target.value })}
      />
      <AddressField value={values.email} error={at('email')} onType={(email) => set({ email })} />
      <NewPasswordField
        label="Password"
        value={values.password}
        error={at('password')}
        onType={(password) => set({ password })}
      />
      <SettingFields values={values} set={set} countries={countries} />
    </Form>
  );
}
