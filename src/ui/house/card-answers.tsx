'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { businessKind, findKinds } from '@/core/business/kinds';
import { statementName as printedName, STATEMENT_NAME } from '@/core/business/opening';
import { Button } from '../kit/button';
import { Field, FieldError } from '../kit/field';
import { Form, useTyped } from '../kit/form';
import { send } from '../kit/send';
import { say } from '../kit/toasts';

/** A kind of business, found by the words of the trade. */
function KindField({
  kind,
  error,
  onChoose,
}: {
  kind: string;
  error: string | undefined;
  onChoose: (kind: string) => void;
}) {
  const [typed, setTyped] = useState('');
  const chosen = businessKind(kind);
  const found = findKinds(typed);
  if (chosen)
    return (
      <div>
        <span className="label mb-1">What you sell</span>
        <p className="flex flex-wrap items-baseline gap-x-3">
          <span className="font-serif text-[17px]/6">{chosen.name}</span>
          <Button look="small-link" opens onClick={() => onChoose('')}>
            Another kind
          </Button>
        </p>
      </div>
    );
  return (
    <div>
      <Field
        label="What you sell"
        value={typed}
        hint="A word of your trade: violin, hairdresser, lessons, plumber."
        error={error}
        autoComplete="off"
        onChange={(event) => setTyped(event.target.value)}
      />
      {found.length > 0 ? (
        <ul className="mt-1.5 border-t border-rule" aria-label="Kinds of business">
          {found.map(({ code, name, also }) => (
            <li key={code} className="border-b border-rule">
              <button
                type="button"
                className="block w-full px-1 py-1.5 text-left hover:bg-petal"
                onClick={() => onChoose(code)}
              >
                <span className="font-serif text-[15.5px]/6">{name}</span>
                {also ? <span className="small block text-soft">{also.split(' ').slice(0, 7).join(', ')}</span> : null}
              </button>
            </li>
          ))}
        </ul>
      ) : typed.trim().length > 2 ? (
        <FieldError>Nothing is called so. Try another word: what you make, do or teach.</FieldError>
      ) : null}
    </div>
  );
}

/** The two answers that open card payments. */
export function CardAnswersForm({
  kind,
  statementName,
  isOpen,
  maySet,
}: {
  kind: string;
  statementName: string;
  isOpen: boolean;
  maySet: boolean;
}) {
  const router = useRouter();
  const form = useTyped({
    start: { kind, statementName },
    keepAs: 'card-answers',
    send: (body) => send('PUT', '/api/profile/cards', body),
    done: () => {
      say(isOpen ? 'Saved' : 'Card payments are open');
      if (isOpen) router.refresh();
      else router.push('/today');
    },
  });
  const { values, set, at } = form;
  const printed = printedName(values.statementName);
  return (
    <Form
      of={form}
      legend="Card payments"
      disabled={!maySet}
      actions={
        <Button type="submit" look="go" busy={form.busy} disabled={!maySet} busyWords="Saving">
          {isOpen ? 'Save' : 'Open card payments'}
        </Button>
      }
    >
      <KindField kind={values.kind} error={at('kind')} onChoose={(code) => set({ kind: code })} />
      <Field
        label="Your name on card statements"
        value={values.statementName}
        error={at('statementName')}
        hint={`Your customers read: ${printed || '…'}. Up to ${STATEMENT_NAME.most} letters that they know you by.`}
        maxLength={60}
        onChange={(event) => set({ statementName: event.target.value })}
      />
    </Form>
  );
}
