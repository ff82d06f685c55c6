'use client';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import type { Way } from '@/core/person/steps';
import { AddressField } from './house/access-fields';
import { Button } from './kit/button';
import { Field, FieldError } from './kit/field';
import { Form, useTyped } from './kit/form';
import { type Answer, send, troubleOf } from './kit/send';
import { Rosette } from './rosette';
import { askedPasskey, knowsPasskeys } from './steps/passkey';
import { StepForm } from './steps/step-form';

type Offer = {
  readonly people: readonly { name: string; email: string; role: string; business: string }[];
  readonly password: string;
};

const ROLES: Readonly<Record<string, string>> = {
  owner: 'owner, may do everything',
  clerk: 'clerk, asks for money',
  reader: 'may look, not change',
};

/** What is still asked after the password; nothing of somebody who is in. */
type Half = { readonly half: string; readonly ways: readonly Way[] } | null;

/** Sends address and password; where work is asked for first, does it and sends them again. */
async function signedIn(body: object, { email }: { email: string }): Promise<Answer<Half>> {
  const answer = await send<Half>('POST', '/api/sign-in', body);
  if (answer.ok || answer.code !== 'work-first') return answer;
  const { doneWork } = await import('./payer/work');
  const work = await doneWork(`/api/sign-in/challenge?email=${encodeURIComponent(email)}`);
  return work ? send('POST', '/api/sign-in', { ...body, work }) : answer;
}

/** The second step, once the password was right; and what to do without any. */
function SecondStep({ half, onIn, onAgain }: { half: NonNullable<Half>; onIn: () => void; onAgain: () => void }) {
  const [lost, setLost] = useState('');
  const askLost = async () => {
    const answer = await send('POST', '/api/sign-in/lost', { half: half.half });
    setLost(
      answer.ok
        ? 'A link is on its way to your address. Follow it, and in three days your password alone is enough.'
        : answer.words,
    );
  };
  return (
    <>
      <h2 className="title-section mb-3">Your second step</h2>
      <StepForm
        ways={half.ways}
        ask={{ path: '/api/sign-in/second/passkey', body: { half: half.half } }}
        action="Sign in"
        onGiven={async (given) => {
          const answer = await send('POST', '/api/sign-in/second', { ...given, half: half.half });
          if (answer.ok) onIn();
          return answer;
        }}
      />
      <p className="mt-6 flex flex-wrap gap-x-5 gap-y-1">
        <Button look="link" onClick={onAgain}>
          Another person
        </Button>
        <Button look="link" onClick={() => void askLost()}>
          I have lost all of these
        </Button>
      </p>
      {lost ? (
        <p className="mt-3 bg-wash px-3 py-2" role="status">
          {lost}
        </p>
      ) : null}
    </>
  );
}

/**
 * Address and password, or a passkey; in the demo its people stand ready to be chosen.
 *
 * @param to where whoever signs in goes on
 */
export function SignInForm({ offer, to }: { offer: Offer | null; to: string }) {
  const [leaving, setLeaving] = useState(false);
  const [half, setHalf] = useState<Half>(null);
  const [hasPasskeys, setHasPasskeys] = useState(false);
  const [trouble, setTrouble] = useState('');
  useEffect(() => void knowsPasskeys().then(setHasPasskeys), []);
  const goIn = () => {
    setLeaving(true);
    location.assign(to);
  };
  const byPasskey = async () => {
    setTrouble('');
    const asked = await askedPasskey('/api/sign-in/passkey/challenge', {});
    const answer = asked.ok ? await send('POST', '/api/sign-in/passkey', asked.value) : asked;
    setTrouble(troubleOf(answer));
    if (answer.ok) goIn();
  };
  const form = useTyped({
    start: { email: '', password: '' },
    send: signedIn,
    done: (asked) => (asked ? setHalf(asked) : goIn()),
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
            {half ? (
              <SecondStep half={half} onIn={goIn} onAgain={() => setHalf(null)} />
            ) : (
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
            )}
            {hasPasskeys && !half ? (
              <div className="mt-5">
                <Button disabled={busy} onClick={() => void byPasskey()}>
                  Sign in with a passkey
                </Button>
                {trouble ? <FieldError>{trouble}</FieldError> : null}
              </div>
            ) : null}
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
