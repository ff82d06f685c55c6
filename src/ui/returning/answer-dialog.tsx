'use client';
import { useRouter } from 'next/navigation';
import { TickField } from '../kit/check';
import { TextField } from '../kit/field';
import { useTyped } from '../kit/form';
import { TypedDialog } from '../kit/form-dialog';
import { send } from '../kit/send';
import { say } from '../kit/toasts';
import type { ReturnRowShown } from './shown';

type Values = { answer: string; withLabel: boolean };

const rules = (allow: boolean) => () =>
  import('@/input/return-input').then((all) => (allow ? all.AllowReturnInput : all.RefuseReturnInput));

/** Allows a return, with a label where it was posted, or refuses it in words. */
export function AnswerDialog({ row, allow, onClose }: { row: ReturnRowShown; allow: boolean; onClose: () => void }) {
  const router = useRouter();
  const form = useTyped<Values>({
    start: { answer: '', withLabel: row.wasPosted },
    shape: rules(allow),
    body: ({ answer, withLabel }) => (allow ? { answer, withLabel } : { answer }),
    send: (body) => send('POST', `/api/returns/${row.id}/${allow ? 'allow' : 'refuse'}`, body),
    done: () => {
      say(`${row.name} is told`);
      onClose();
      router.refresh();
    },
  });
  const { values, set, at } = form;
  return (
    <TypedDialog
      of={form}
      title={allow ? 'Allow the return' : 'Refuse the return'}
      about={
        allow
          ? `${row.name} is told by mail, and finds the label on the page of what they bought.`
          : `${row.name} reads why, by mail and on the page of what they bought.`
      }
      action={allow ? 'Allow it' : 'Refuse it'}
      onClose={onClose}
    >
      <TextField
        label={allow ? 'A word with it (not needed)' : 'Why'}
        value={values.answer}
        error={at('answer')}
        maxLength={1000}
        onChange={(event) => set({ answer: event.target.value })}
      />
      {allow && row.wasPosted ? (
        <TickField
          label="With a label that we pay"
          hint="Bought from the balance now, at the cheapest service."
          checked={values.withLabel}
          onChange={(event) => set({ withLabel: event.target.checked })}
        />
      ) : null}
    </TypedDialog>
  );
}
