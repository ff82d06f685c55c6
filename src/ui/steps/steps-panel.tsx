'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Field, FieldError } from '../kit/field';
import { Form, useTyped } from '../kit/form';
import { usePress } from '../kit/press';
import { send, troubleOf } from '../kit/send';
import { AppDialog, type AppKey } from './app-dialog';
import { madePasskey } from './passkey';
import { RecoveryCodes } from './recovery-codes';

/** What somebody has for their second step; times are written already. */
export type ShownSteps = {
  readonly confirmed: boolean;
  readonly required: boolean;
  /** Since when there is an app; empty without one. */
  readonly appSince: string;
  readonly passkeys: readonly { readonly id: string; readonly name: string; readonly words: string }[];
  readonly codesLeft: number;
  /** Until when the steps can be kept, by who is said to have lost them; empty where nobody said so. */
  readonly lostUntil: string;
};

const ROW = 'flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-rule py-2.5';

/** A passkey's name, then the browser's own dialog. */
function PasskeyForm({ onAdded }: { onAdded: (codes: readonly string[]) => void }) {
  const form = useTyped({
    start: { name: 'This device' },
    send: async (body) => {
      const made = await madePasskey();
      return made.ok ? send<readonly string[]>('POST', '/api/steps/passkeys', { ...body, ...made.value }) : made;
    },
    done: onAdded,
  });
  return (
    <Form
      of={form}
      legend="A passkey"
      actions={
        <Button type="submit" look="go" busy={form.busy} busyWords="Your device asks" className="justify-self-start">
          Make the passkey
        </Button>
      }
    >
      <Field
        label="Name"
        hint="Where it is kept: laptop in the shop, phone, key on the ring."
        maxLength={60}
        value={form.values.name}
        error={form.at('name')}
        onChange={(event) => form.set({ name: event.target.value })}
      />
    </Form>
  );
}

/** The second step of whoever is signed in: what there is, more of it, and less. */
export function StepsPanel({ steps, onFirst }: { steps: ShownSteps; onFirst?: () => void }) {
  const router = useRouter();
  const { busy, press, pressed } = usePress();
  const [app, setApp] = useState<AppKey | null>(null);
  const [naming, setNaming] = useState(false);
  const [codes, setCodes] = useState<readonly string[]>([]);
  const [trouble, setTrouble] = useState('');
  const { appSince, passkeys, codesLeft, lostUntil, confirmed, required } = steps;
  const has = appSince !== '' || passkeys.length > 0;
  const begin = async () => {
    const answer = await press<AppKey>('/api/steps/app/key', {});
    setTrouble(troubleOf(answer));
    if (answer.ok) setApp(answer.value);
  };
  const added = (fresh: readonly string[]) => {
    setApp(null);
    setNaming(false);
    // What is read anew may lead elsewhere: not before the codes were seen.
    if (fresh.length > 0) return setCodes(fresh);
    router.refresh();
    onFirst?.();
  };
  const renew = async () => {
    const answer = await press<readonly string[]>('/api/steps/recovery', {});
    setTrouble(troubleOf(answer));
    if (answer.ok) setCodes(answer.value);
  };
  if (!confirmed)
    return (
      <p className="mt-2 text-soft">
        First confirm your e-mail address: a second step belongs to an address that is known to be yours.
      </p>
    );
  return (
    <>
      <p className="mt-2 text-soft">
        {has
          ? 'Who has your password alone does not come in.'
          : 'With a second step, who has your password alone does not come in. A passkey can also stand in for the password.'}
        {required ? ' This business asks everybody for one.' : ''}
      </p>
      {lostUntil ? (
        <div className="mt-3 bg-ochre-tint px-3 py-2.5" role="status">
          Somebody with your password and your mail says that all of this is lost. It is taken off {lostUntil}.
          <Button
            look="link"
            className="ml-3"
            disabled={busy}
            onClick={() => void pressed('/api/steps/keep', {}, 'It stays')}
          >
            Stop it
          </Button>
        </div>
      ) : null}
      <ul className="mt-3 border-t border-rule" aria-label="Second step">
        <li className={ROW}>
          <span className="flex-1">
            <span className="font-serif text-[15.5px]/6 font-medium">Authenticator app</span>
            <span className="small block text-soft">
              {appSince ? `since ${appSince}` : 'Six figures from your phone.'}
            </span>
          </span>
          <Button look="link" disabled={busy} onClick={() => void begin()}>
            {appSince ? 'Another app' : 'Set up an app'}
          </Button>
          {appSince ? (
            <Button
              look="link"
              disabled={busy}
              onClick={() => void pressed('/api/steps/app', {}, 'The app is taken away', 'DELETE')}
            >
              Take away
            </Button>
          ) : null}
        </li>
        {passkeys.map(({ id, name, words }) => (
          <li key={id} className={ROW}>
            <span className="min-w-0 flex-1">
              <span className="break-words font-serif text-[15.5px]/6 font-medium">{name}</span>
              <span className="small block text-soft">Passkey, {words}</span>
            </span>
            <Button
              look="link"
              disabled={busy}
              aria-label={`Take away ${name}`}
              onClick={() => void pressed('/api/steps/passkeys', { id }, 'The passkey is taken away', 'DELETE')}
            >
              Take away
            </Button>
          </li>
        ))}
        <li className={ROW}>
          <span className="flex-1">
            <span className="font-serif text-[15.5px]/6 font-medium">
              {passkeys.length > 0 ? 'A further passkey' : 'Passkey'}
            </span>
            <span className="small block text-soft">Finger, face or the code of a device; or a key on the ring.</span>
          </span>
          <Button look="link" disabled={busy} onClick={() => setNaming(true)}>
            Make a passkey
          </Button>
        </li>
        {has ? (
          <li className={ROW}>
            <span className="flex-1">
              <span className="font-serif text-[15.5px]/6 font-medium">Recovery codes</span>
              <span className={`small block ${codesLeft < 3 ? 'font-medium text-ochre' : 'text-soft'}`}>
                {codesLeft} of 10 left
              </span>
            </span>
            <Button look="link" disabled={busy} onClick={() => void renew()}>
              Make new ones
            </Button>
          </li>
        ) : null}
      </ul>
      {trouble ? <FieldError>{trouble}</FieldError> : null}
      {app ? <AppDialog made={app} onAdded={added} onClose={() => setApp(null)} /> : null}
      {naming ? (
        <Dialog
          open
          title="A passkey"
          about="It stays on your device or in its passwords, and signs you in with or without the password."
          onOpenChange={setNaming}
        >
          <PasskeyForm onAdded={added} />
        </Dialog>
      ) : null}
      {codes.length > 0 ? (
        <RecoveryCodes
          codes={codes}
          onClose={() => {
            setCodes([]);
            router.refresh();
            onFirst?.();
          }}
        />
      ) : null}
    </>
  );
}
