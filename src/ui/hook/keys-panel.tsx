'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { KEY_RIGHT_WORDS, KEY_RIGHTS, type KeyRight } from '@/core/program/key';
import { Button } from '../kit/button';
import { Check } from '../kit/check';
import { Dialog } from '../kit/dialog';
import { Field, FieldError } from '../kit/field';
import { Form, useTyped } from '../kit/form';
import { usePress } from '../kit/press';
import { type Answer, send } from '../kit/send';
import { SecretDialog } from './secret-dialog';

/** A key as the desk lists it; times are written already. */
type KeyShown = {
  readonly id: string;
  readonly name: string;
  readonly may: string;
  readonly since: string;
  readonly until: string;
  readonly isOver: boolean;
  readonly used: string;
};

/** A new key: for which program, what it may, for how long. */
function KeyForm({ onDone }: { onDone: (key: string) => void }) {
  const form = useTyped<{ name: string; rights: readonly KeyRight[]; days: string }, { key: string }>({
    start: { name: '', rights: ['see'], days: '90' },
    shape: () => import('@/input/program-input').then(({ KeyInput }) => KeyInput),
    body: ({ name, rights, days }) => ({ name, rights, days: days.trim() === '' ? null : Number(days) }),
    send: (body): Promise<Answer<{ key: string }>> => send('POST', '/api/keys', body),
    done: ({ key }) => onDone(key),
  });
  const { values, set, at } = form;
  return (
    <Form
      of={form}
      legend="A key"
      actions={
        <Button type="submit" look="go" busy={form.busy} busyWords="Making it" className="justify-self-start">
          Make the key
        </Button>
      }
    >
      <Field
        label="For which program"
        maxLength={60}
        autoComplete="off"
        value={values.name}
        error={at('name')}
        hint="It stands on what the program does."
        onChange={(event) => set({ name: event.target.value })}
      />
      <fieldset className="min-w-0">
        <legend className="label mb-1">It may</legend>
        <div className="grid gap-1">
          {KEY_RIGHTS.map((right) => (
            <label key={right} className="flex items-center gap-2">
              <Check
                checked={values.rights.includes(right)}
                onChange={(event) =>
                  set({
                    rights: KEY_RIGHTS.filter((one) =>
                      one === right ? event.target.checked : values.rights.includes(one),
                    ),
                  })
                }
              />
              {KEY_RIGHT_WORDS[right]}
            </label>
          ))}
        </div>
        {at('rights') ? <FieldError>{at('rights')}</FieldError> : null}
      </fieldset>
      <Field
        className="max-w-[220px]"
        label="Good for how many days"
        inputMode="numeric"
        value={values.days}
        error={at('days')}
        onChange={(event) => set({ days: event.target.value })}
      />
    </Form>
  );
}

/** Keys by which programs come in, made and ended. */
export function KeysPanel({ keys }: { keys: readonly KeyShown[] }) {
  const router = useRouter();
  const { busy, pressed } = usePress();
  const [making, setMaking] = useState(false);
  const [ending, setEnding] = useState('');
  const [secret, setSecret] = useState('');
  return (
    <section aria-label="Programs that come in" className="mt-10">
      <div className="flex flex-wrap items-baseline gap-4 border-b border-ink pb-1.5">
        <h2 className="title-section flex-1">Programs that come in</h2>
        <Button look="link" opens onClick={() => setMaking(true)}>
          Make a key
        </Button>
      </div>
      <p className="document pt-2">
        With a key a program reads and writes here by itself, as far as the key says and never more than whoever made
        it. What it can do is described in{' '}
        <a className="link" href="/v1/openapi.json" target="_blank" rel="noreferrer">
          OpenAPI 3.1
        </a>
        .
      </p>
      {keys.length === 0 ? <p className="pt-3 text-soft">There is no key yet.</p> : null}
      <ul>
        {keys.map(({ id, name, may, since, until, isOver, used }) => (
          <li key={id} className="flex flex-wrap items-baseline gap-x-5 gap-y-1 border-b border-rule py-2.5">
            <div className="min-w-[220px] flex-1">
              <span className="name">{name}</span>
              <p className="small text-soft">{may}</p>
              <p className="small text-soft">
                {isOver ? <b className="font-semibold text-ochre">over since {until}</b> : <>good until {until}</>},{' '}
                {since}, {used}
              </p>
            </div>
            {ending === id ? (
              <span className="flex gap-4">
                <Button
                  look="link"
                  disabled={busy}
                  onClick={() => void pressed(`/api/keys/${id}`, {}, 'Nobody comes in by it any more', 'DELETE')}
                >
                  Yes, end it
                </Button>
                <Button look="link" onClick={() => setEnding('')}>
                  Leave it
                </Button>
              </span>
            ) : (
              <Button look="link" aria-label={`End the key ${name}`} onClick={() => setEnding(id)}>
                End
              </Button>
            )}
          </li>
        ))}
      </ul>
      <Dialog open={making} onOpenChange={setMaking} title="A key for a program">
        <KeyForm
          onDone={(key) => {
            setMaking(false);
            setSecret(key);
            router.refresh();
          }}
        />
      </Dialog>
      {secret ? (
        <SecretDialog
          title="The key"
          about="It is shown this once. Whoever has it comes in: give it to the program and to nobody else."
          secret={secret}
          onClose={() => setSecret('')}
        >
          The program sends it with each request: Authorization: Bearer, a space, and the key.
        </SecretDialog>
      ) : null}
    </section>
  );
}
