'use client';
import { useRouter } from 'next/navigation';
import { Button } from '../kit/button';
import { Field, TextField } from '../kit/field';
import { useTyped } from '../kit/form';
import { TypedDialog } from '../kit/form-dialog';
import { send } from '../kit/send';
import { say, sayTrouble } from '../kit/toasts';

export type TermsText = { readonly id: string; readonly name: string; readonly version: number; readonly text: string };

const rules = () => import('@/input/profile-input').then(({ TermsInput }) => TermsInput);

/** Writes new terms, or a new version of some. */
export function TermsDialog({ terms, onClose }: { terms: TermsText | null; onClose: () => void }) {
  const router = useRouter();
  const form = useTyped({
    start: { name: terms?.name ?? '', text: terms?.text ?? '' },
    keepAs: `terms:${terms?.id ?? 'new'}`,
    shape: rules,
    body: (values) => ({ id: terms?.id ?? null, ...values }),
    send: (body) => send('POST', '/api/terms', body),
    done: () => {
      onClose();
      say('The terms are saved');
      router.refresh();
    },
  });
  const { values, set, at } = form;

  async function drop(id: string) {
    const answer = await send('DELETE', `/api/terms/${id}`);
    if (!answer.ok) return sayTrouble(answer.words);
    form.leave();
    onClose();
    router.refresh();
  }

  return (
    <TypedDialog
      of={form}
      title={terms ? 'Edit terms' : 'Write terms'}
      about="Invoices already sent keep the version that they were sent with."
      action={terms ? 'Save as a new version' : 'Save terms'}
      onClose={() => {
        form.leave();
        onClose();
      }}
    >
      <Field
        label="Name"
        maxLength={120}
        value={values.name}
        error={at('name')}
        onChange={(event) => set({ name: event.target.value })}
      />
      <TextField
        label="Text"
        rows={10}
        maxLength={40_000}
        value={values.text}
        error={at('text')}
        onChange={(event) => set({ text: event.target.value })}
      />
      {terms ? (
        <Button look="link" className="justify-self-start" onClick={() => void drop(terms.id)}>
          Remove from the list
        </Button>
      ) : null}
    </TypedDialog>
  );
}
