'use client';
import { useRouter } from 'next/navigation';
import { KEEPING_BOUNDS, type KeepingKind, type KeepingRule } from '@/core/keeping/keeping';
import { Button } from '../kit/button';
import { Field } from '../kit/field';
import { Form, useTyped } from '../kit/form';
import { send } from '../kit/send';
import { say } from '../kit/toasts';

const LABELS: Readonly<Record<KeepingKind, readonly [label: string, hint: string]>> = {
  paperYears: ['Papers, in years', 'Invoices, receipts, credit notes and payments, after the end of their year.'],
  checkoutDays: ['Checkouts that were not paid, in days', 'What somebody typed who began to pay and left it.'],
  mailMonths: ['What mails said, in months', 'That they went out and arrived stays with the paper.'],
  programDays: ['What other programs were told, in days', 'Each delivery with its answer.'],
};
const KINDS = Object.keys(LABELS) as KeepingKind[];

/** Decides how long each kind of thing is kept. @param lawYears the least for papers where the business is */
export function KeepingForm({ rule, lawYears }: { rule: KeepingRule; lawYears: number }) {
  const router = useRouter();
  const form = useTyped<Record<KeepingKind, string>, null>({
    start: {
      paperYears: String(rule.paperYears),
      checkoutDays: String(rule.checkoutDays),
      mailMonths: String(rule.mailMonths),
      programDays: String(rule.programDays),
    },
    shape: () => import('@/input/keeping-input').then(({ KeepingInput }) => KeepingInput),
    // What is no number is refused by the rule, at its field.
    body: (values) =>
      Object.fromEntries(KINDS.map((kind) => [kind, values[kind].trim() === '' ? null : Number(values[kind])])),
    send: (body) => send('PUT', '/api/keeping', body),
    done: () => {
      say('This holds from now on');
      router.refresh();
    },
  });
  return (
    <Form
      of={form}
      legend="How long things are kept"
      actions={
        <Button
          type="submit"
          busy={form.busy}
          busyWords="Saving it"
          className="justify-self-start"
          disabled={!form.changed}
        >
          Save how long
        </Button>
      }
    >
      <p className="document -mt-1">
        What is over is forgotten every night. Customers read these times on a page of their own, in their language.
      </p>
      <div className="grid gap-x-6 gap-y-4 sm:grid-cols-2">
        {KINDS.map((kind) => {
          const [label, hint] = LABELS[kind];
          const least =
            kind === 'paperYears' ? Math.max(lawYears, KEEPING_BOUNDS[kind].least) : KEEPING_BOUNDS[kind].least;
          return (
            <Field
              key={kind}
              label={label}
              hint={kind === 'paperYears' ? `${hint} At least ${least}: the law where you are.` : hint}
              inputMode="numeric"
              value={form.values[kind]}
              error={form.at(kind)}
              onChange={(event) => form.set({ [kind]: event.target.value })}
            />
          );
        })}
      </div>
    </Form>
  );
}
