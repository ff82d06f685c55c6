'use client';
import { useState } from 'react';
import type { Holds } from '@/core/person/rights';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Field, FieldError } from '../kit/field';
import { Form, useTyped } from '../kit/form';
import { usePress } from '../kit/press';
import { send, troubleOf } from '../kit/send';
import { say } from '../kit/toasts';
import { AccessForm, type ShownAccess } from './access-form';
import { HoldsFields, RightsTable } from './holds-fields';

/** Somebody who works here, or did; times are written already. */
export type PersonShown = Holds & {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly words: string;
  readonly left: string;
  readonly used: string;
  /** How they sign in; nothing of who left. */
  readonly step: string;
  readonly isMe: boolean;
};

/** Somebody who is asked to work here. */
export type InvitedShown = {
  readonly id: string;
  readonly email: string;
  readonly words: string;
  readonly until: string;
  readonly isOver: boolean;
};

const ROW =
  'grid items-baseline gap-x-4 gap-y-1 border-b border-rule py-2.5 sm:grid-cols-[minmax(0,1fr)_minmax(0,1fr)_170px]';

/** Asks somebody by mail. */
function InviteForm({ onDone }: { onDone: () => void }) {
  const form = useTyped({
    start: { email: '', role: 'clerk' as Holds['role'], extra: [] as Holds['extra'] },
    shape: () => import('@/input/people-input').then(({ InviteInput }) => InviteInput),
    send: (body) => send('POST', '/api/invitations', body),
    done: (_, { email }) => {
      say(`An invitation is on its way to ${email}`);
      onDone();
    },
  });
  const { values, set, at } = form;
  return (
    <Form
      of={form}
      legend="An invitation"
      actions={
        <Button type="submit" look="go" busy={form.busy} busyWords="Sending it">
          Send the invitation
        </Button>
      }
    >
      <Field
        label="E-mail address"
        type="email"
        autoComplete="off"
        value={values.email}
        error={at('email')}
        onChange={(event) => set({ email: event.target.value })}
      />
      <HoldsFields holds={values} onChange={(holds) => set(holds)} />
    </Form>
  );
}

/** What somebody may do, and the end of their time here. */
function PersonDialog({ person, onClose }: { person: PersonShown; onClose: () => void }) {
  const { busy, press } = usePress();
  const [holds, setHolds] = useState<Holds>({ role: person.role, extra: person.extra });
  const [asks, setAsks] = useState(false);
  const [trouble, setTrouble] = useState('');
  const told = (answer: Parameters<typeof troubleOf>[0]) => {
    setTrouble(troubleOf(answer));
    if (answer.ok) onClose();
  };
  const path = `/api/people/${person.id}`;
  return (
    <Dialog open title={person.name} about={person.email} onOpenChange={(open) => open || onClose()}>
      <HoldsFields holds={holds} onChange={setHolds} />
      {trouble ? <FieldError>{trouble}</FieldError> : null}
      {asks ? (
        <p className="mt-4 bg-brick-tint px-3 py-2">
          {person.name} is signed out at once and comes in no more. What they made keeps their name.
        </p>
      ) : null}
      <div className="mt-5 flex flex-wrap items-center gap-4">
        {asks ? (
          <Button
            look="sure"
            busy={busy}
            onClick={() => void press(path, {}, `${person.name} works here no more`, 'DELETE').then(told)}
          >
            End their time here
          </Button>
        ) : (
          <Button
            look="go"
            busy={busy}
            onClick={() => void press(path, holds, `What ${person.name} may do is saved`, 'PUT').then(told)}
          >
            Save
          </Button>
        )}
        <Button look="link" onClick={() => setAsks(!asks)}>
          {asks ? 'Leave it' : 'End their time here'}
        </Button>
      </div>
    </Dialog>
  );
}

/** Who works here, who is asked to, and who may what. */
export function PeopleDesk({
  people,
  invited,
  access,
}: {
  people: readonly PersonShown[];
  invited: readonly InvitedShown[];
  access: ShownAccess;
}) {
  const { busy, pressed } = usePress();
  const [asking, setAsking] = useState(false);
  const [chosen, setChosen] = useState<PersonShown | null>(null);
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-4">
        <h1 className="title-screen flex-1">People</h1>
        <Button look="go" onClick={() => setAsking(true)}>
          Invite somebody
        </Button>
      </div>
      <ul className="mt-4 border-t border-ink" aria-label="Who works here">
        {people.map((person) => (
          <li key={person.id} className={ROW}>
            <div className="min-w-0">
              <span className={`name private ${person.left ? 'text-soft' : ''}`}>{person.name}</span>
              {person.isMe ? <span className="font-semibold text-leaf"> you</span> : null}
              <span className="private small block text-soft">{person.email}</span>
            </div>
            <div className="min-w-0">
              {person.left ? <span className="text-soft">{person.left}</span> : person.words}
              <span className="small block text-soft">{[person.step, person.used].filter(Boolean).join(', ')}</span>
            </div>
            {person.left ? null : (
              <Button
                look="link"
                className="justify-self-start sm:justify-self-end"
                onClick={() => setChosen(person)}
                aria-label={`What ${person.name} may do`}
              >
                Change
              </Button>
            )}
          </li>
        ))}
      </ul>
      {invited.length > 0 ? (
        <section className="mt-7" aria-label="Invited">
          <h2 className="title-section border-b border-ink pb-1.5">Invited</h2>
          <ul>
            {invited.map(({ id, email, words, until, isOver }) => (
              <li key={id} className={ROW}>
                <span className="private min-w-0">{email}</span>
                <span className="min-w-0">
                  {words}
                  <span className={`small block ${isOver ? 'font-medium text-ochre' : 'text-soft'}`}>{until}</span>
                </span>
                <span className="flex gap-4 sm:justify-end">
                  <Button
                    look="link"
                    disabled={busy}
                    onClick={() => void pressed(`/api/invitations/${id}/again`, {}, `Sent again to ${email}`)}
                  >
                    Send again
                  </Button>
                  <Button
                    look="link"
                    disabled={busy}
                    onClick={() => void pressed(`/api/invitations/${id}`, {}, 'The invitation is withdrawn', 'DELETE')}
                  >
                    Withdraw
                  </Button>
                </span>
              </li>
            ))}
          </ul>
        </section>
      ) : null}
      <section className="mt-7" aria-label="Who may what">
        <h2 className="title-section mb-1">Who may what</h2>
        <RightsTable />
        <p className="small mt-2 text-soft">Single rights can be given beyond a role. All changes stand in the log.</p>
      </section>
      <section className="mt-7" aria-label="How people sign in">
        <h2 className="title-section mb-3 border-b border-ink pb-1.5">How people sign in</h2>
        <AccessForm access={access} />
      </section>
      {asking ? (
        <Dialog
          open
          title="Invite somebody"
          about="They get a link by mail that is good for seven days."
          onOpenChange={setAsking}
        >
          <InviteForm onDone={() => setAsking(false)} />
        </Dialog>
      ) : null}
      {chosen ? <PersonDialog person={chosen} onClose={() => setChosen(null)} /> : null}
    </>
  );
}
