'use client';
import { useState } from 'react';
import { Field, FieldError } from './field';
import { Rosette } from './rosette';
import { send } from './send';

type Offer = {
  readonly people: readonly { name: string; email: string; role: string; business: string }[];
  readonly password: string;
};

const ROLES: Readonly<Record<string, string>> = {
  owner: 'owner, may do everything',
  clerk: 'clerk, asks for money',
  reader: 'may look, not change',
};

/** Address and password; in the demo its people stand ready to be chosen. */
export function SignInForm({ offer }: { offer: Offer | null }) {
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);

  async function signIn(as: { email: string; password: string }) {
    setBusy(true);
    setTrouble('');
    const answer = await send('POST', '/api/sign-in', as);
    if (answer.ok) return location.assign('/today');
    setBusy(false);
    setTrouble(answer.words);
  }

  return (
    <main className="mx-auto flex min-h-dvh max-w-[920px] flex-col justify-center px-4 py-10">
      <div className="sheet grid md:grid-cols-[1fr_1fr]">
        <section className="p-8 md:p-10">
          <div className="flex items-center gap-3 border-b-[3px] border-double border-ink pb-3">
            <Rosette state="Paid" share={1} size={30} />
            <h1 className="title-screen">Dahlia</h1>
          </div>
          <form
            className="mt-6 grid gap-4"
            noValidate
            onSubmit={(event) => {
              event.preventDefault();
              void signIn({ email, password });
            }}
          >
            <Field
              label="E-mail address"
              type="email"
              name="email"
              autoComplete="username"
              value={email}
              onChange={(event) => setEmail(event.target.value)}
            />
            <Field
              label="Password"
              type="password"
              name="password"
              autoComplete="current-password"
              value={password}
              onChange={(event) => setPassword(event.target.value)}
            />
            <div aria-live="polite">{trouble ? <FieldError>{trouble}</FieldError> : null}</div>
            <button type="submit" className={`btn ${offer ? '' : 'btn-go'}`} disabled={busy}>
              {busy ? 'Signing in' : 'Sign in'}
            </button>
          </form>
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
                    <button
                      type="button"
                      className={`btn ${at === 0 ? 'btn-go' : ''}`}
                      disabled={busy}
                      onClick={() => void signIn({ email: person.email, password: offer.password })}
                    >
                      Come in as {person.name.split(' ')[0]}
                    </button>
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
