'use client';
import Link from 'next/link';
import { useState } from 'react';
import { AddressField } from './house/access-fields';
import { Button } from './kit/button';
import { Field } from './kit/field';
import { Form, useTyped } from './kit/form';
import { type Answer, send } from './kit/send';
import { Rosette } from './rosette';

type Offer = {
  readonly people: readonly { name: string; email: string; role: string; business: string }[];
  readonly password: string;
};

const ROLES: Readonly<Record<string, string>> = {
  owner: 'owner, may do everything',
  clerk: 'clerk, asks for money',
  reader: 'may look, not change',
};

/** Sends address and password; where work is asked for first, does it and sends them again. */
async function signedIn(body: object, { email }: { email: string }): Promise<Answer<unknown>> {
  const answer = await send('POST', '/api/sign-in', body);
  if (answer.ok || answer.code !== 'work-first') return answer;
  const { doneWork } = await import('./payer/work');
  const work = await doneWork(`/api/sign-in/challenge?email=${encodeURIComponent(email)}`);
  return work ? send('POST', '/api/sign-in', { ...body, work }) : answer;
}

/** Address and password; in the demo its people stand ready to be chosen. */
export function SignInForm({ offer }: { offer: Offer | null }) {
  const [leaving, setLeaving] = useState(false);
  const form = useTyped({
    start: { email: '', password: '' },
    send: signedIn,
    done: () => {
      setLeaving(true);
      location.assign('/today');
    },
  });
  const { values, set } = form;
  // Until the next page is there.
  const busy = form.busy || leaving;

  return (
    <main className="mx-auto flex min-h-dvh max-w-[920px] flex-col justify-center px-4 py-10">
      <div className="sheet grid md:grid-cols-[1fr_1fr]">
        <section className="p-8 md:p-10">
          <div className="flex items-center gap-3 border-b-[3px] border-double border-ink pb-3">
            <Rosette state="Paid" share={1} size={30} />
            <h1 className="title-screen">Dahlia</h1>
          </div>
          <div className="mt-6" aria-live="polite">
            <Form
              of={form}
              legend="Signing in"
              actions={
                <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
                  <Button type="submit" look={offer ? 'plain' : 'go'} busy={busy} busyWords="Signing in">
                    Sign in
                  </Button>
                  <Link href="/forgotten" className="link">
                    Forgotten password
                  </Link>
                </div>
              }
            >
              <AddressField value={values.email} error={undefined} onType={(email) => set({ email })} />
              <Field
                label="Password"
                type="password"
                name="password"
                autoComplete="current-password"
                value={values.password}
                onChange={(event) => set({ password: event.target.value })}
              />
            </Form>
            <p className="mt-6 text-soft">
              New here?{' '}
              <Link href="/sign-up" className="link">
                Begin with a business of your own
              </Link>
            </p>
          </div>
        </section>
        <section className="border-t border-dashed border-edge p-8 md:border-l md:border-t-0 md:p-10">
          {offer ? (
            <>
              <h2 className="title-section">The demo’s people</h2>
              <p className="mt-1 text-soft">All of them, and {offer.people[0]?.business}, are invented. Come in as:</p>
              <ul className="mt-4">
                {offer.people.map((person, at) => (
                  <li key={person.email} className="flex items-center gap-3 border-b border-rule py-3">
                    <div className="min-w-0 flex-1">
                      <div className="name truncate">{person.name}</div>
                      <div className="small text-soft">{ROLES[person.role] ?? person.role}</div>
                    </div>
                    <Button
                      look={at === 0 ? 'go' : 'plain'}
                      disabled={busy}
                      onClick={() => {
                        set({ email: person.email, password: offer.password });
                        void form.submit();
                      }}
                    >
                      Come in as {person.name.split(' ')[0]}
                    </Button>
                  </li>
                ))}
              </ul>
              <p className="small mt-4 text-soft">
                Or type an address and the password <b className="font-semibold text-ink">{offer.password}</b>.
              </p>
            </>
          ) : (
            <p className="max-w-[34ch] font-serif text-[20px]/[28px]">
              Bill for your work, take cards, and see what is still due, on one desk.
            </p>
          )}
        </section>
      </div>
    </main>
  );
}
