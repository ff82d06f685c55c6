'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Button } from '../kit/button';
import { Field } from '../kit/field';
import { Form, useTyped } from '../kit/form';
import { usePress } from '../kit/press';
import { send } from '../kit/send';
import { say } from '../kit/toasts';
import { LinkPress } from './link-press';

/** Agrees to another address by its link. */
export const AgreeForm = ({ token }: { token: string }) => (
  <LinkPress<'waits' | 'done'>
    path="/api/address/agree"
    token={token}
    action="Agree"
    done={(state) => (
      <p className="document">
        {state === 'done'
          ? 'It is changed: sign in with the new address from now on.'
          : 'Thank you. Now the other address has to agree too: its link is in the mail there.'}
      </p>
    )}
  />
);

/** A change of address that waits for its links. */
type Pending = { readonly to: string; readonly oldAgreed: boolean; readonly newAgreed: boolean };

function AddressForm({ onDone }: { onDone: () => void }) {
  const form = useTyped({
    start: { email: '' },
    shape: () => import('@/input/people-input').then(({ MailAddressInput }) => MailAddressInput),
    send: (body) => send('POST', '/api/address', body),
    done: () => {
      say('A link is on its way to both addresses');
      onDone();
    },
  });
  return (
    <Form
      of={form}
      legend="Another address"
      actions={
        <div className="flex gap-4">
          <Button type="submit" look="go" busy={form.busy} busyWords="Sending them">
            Send both links
          </Button>
          <Button look="link" onClick={onDone}>
            Leave it
          </Button>
        </div>
      }
    >
      <Field
        label="New e-mail address"
        type="email"
        autoComplete="email"
        hint="It is changed once the one so far and this one have both agreed, at all your businesses."
        value={form.values.email}
        error={form.at('email')}
        onChange={(event) => form.set({ email: event.target.value })}
      />
    </Form>
  );
}

/** The address with which somebody signs in, and how it becomes another. */
export function AddressPanel({
  email,
  confirmed,
  pending,
}: {
  email: string;
  confirmed: boolean;
  pending: Pending | null;
}) {
  const router = useRouter();
  const { busy, pressed } = usePress();
  const [asking, setAsking] = useState(false);
  const waits = pending && [pending.oldAgreed ? '' : email, pending.newAgreed ? '' : pending.to].filter(Boolean);
  return (
    <>
      <p className="flex flex-wrap items-baseline gap-x-4 py-2">
        <span className="private min-w-0 flex-1 break-words">{email}</span>
        {confirmed && !asking ? (
          <Button look="link" opens onClick={() => setAsking(true)}>
            Another address
          </Button>
        ) : null}
      </p>
      {pending && waits ? (
        <p className="bg-wash px-3 py-2" role="status">
          It becomes <b className="private font-semibold">{pending.to}</b> once{' '}
          <span className="private">{waits.join(' and ')}</span> {waits.length > 1 ? 'have' : 'has'} agreed by mail.
          <Button
            look="link"
            className="ml-3"
            disabled={busy}
            onClick={() => void pressed('/api/address', {}, 'It stays as it is', 'DELETE')}
          >
            Leave it as it is
          </Button>
        </p>
      ) : null}
      {asking ? (
        <AddressForm
          onDone={() => {
            setAsking(false);
            router.refresh();
          }}
        />
      ) : null}
    </>
  );
}
