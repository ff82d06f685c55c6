'use client';
import { useRouter } from 'next/navigation';
import { Field } from '../kit/field';
import { useTyped } from '../kit/form';
import { TypedDialog } from '../kit/form-dialog';
import { NumberInput } from '../kit/number-input';
import { send } from '../kit/send';
import { say } from '../kit/toasts';
import { SignatureField } from '../plan/signature-pad';
import type { CounterRowShown } from './shown';

type Values = { requestKey: string; name: string; strokes: string; quantities: Readonly<Record<number, string>> };

const rules = () => import('@/input/counter-input').then(({ HandOverInput }) => HandOverInput);

/** Hands something over against a name, and a hand where there is one. */
export function HandOverDialog({ row, onClose }: { row: CounterRowShown; onClose: () => void }) {
  const router = useRouter();
  const form = useTyped<Values>({
    start: {
      ...{ requestKey: crypto.randomUUID(), name: row.name, strokes: '' },
      quantities: Object.fromEntries(row.lines.map(({ line, left }) => [line, left])),
    },
    shape: rules,
    body: ({ requestKey, name, strokes, quantities }) => ({
      ...{ requestKey, handoverId: row.id, name, strokes },
      lines: row.lines
        .map(({ line }) => ({ line, quantity: quantities[line] || '0' }))
        .filter(({ quantity }) => Number(quantity) !== 0),
    }),
    send: (body) => send('POST', '/api/counter', body),
    done: (_, { name }) => {
      say(`Handed over to ${name}`);
      onClose();
      router.refresh();
    },
  });
  const { values, set, at, troubles } = form;
  const wrong = Object.entries(troubles).find(([place]) => place.startsWith('lines'))?.[1];
  return (
    <TypedDialog
      of={form}
      title="Hand over"
      about={`${row.sale} for ${row.name}.`}
      action="Hand over"
      onClose={onClose}
    >
      <ul>
        {row.lines.map(({ line, what, left }) => (
          <li
            key={line}
            className="grid grid-cols-[minmax(0,1fr)_auto_92px] items-center gap-3 border-b border-rule py-1.5"
          >
            <span className="document private min-w-0 break-words">{what}</span>
            <span className="small text-soft">of {left}</span>
            <NumberInput
              className="input text-right"
              aria-label={`How many of ${what}`}
              value={values.quantities[line] ?? ''}
              onChange={(event) => set({ quantities: { ...values.quantities, [line]: event.target.value } })}
            />
          </li>
        ))}
      </ul>
      {wrong ? (
        <p role="status" className="font-medium text-brick">
          {wrong}
        </p>
      ) : null}
      <Field
        label="Fetched by"
        value={values.name}
        error={at('name')}
        maxLength={120}
        autoComplete="off"
        onChange={(event) => set({ name: event.target.value })}
      />
      <SignatureField label="Signature, with pen, finger or mouse" onSigned={(_, strokes) => set({ strokes })} />
    </TypedDialog>
  );
}
