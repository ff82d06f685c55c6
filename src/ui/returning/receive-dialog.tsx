'use client';
import { useRouter } from 'next/navigation';
import { useTyped } from '../kit/form';
import { TypedDialog } from '../kit/form-dialog';
import { NumberInput } from '../kit/number-input';
import { send } from '../kit/send';
import { say } from '../kit/toasts';
import type { ReturnRowShown } from './shown';

type Looked = { readonly toStock: string; readonly thrown: string };
type Values = { lines: Readonly<Record<number, Looked>> };

const rules = () => import('@/input/return-input').then(({ ReceiveReturnInput }) => ReceiveReturnInput);

/** Says what of a return came, and what of that can be sold again. */
export function ReceiveDialog({ row, onClose }: { row: ReturnRowShown; onClose: () => void }) {
  const router = useRouter();
  const form = useTyped<Values>({
    start: {
      lines: Object.fromEntries(row.lines.map(({ line, quantity }) => [line, { toStock: quantity, thrown: '0' }])),
    },
    shape: rules,
    body: ({ lines }) => ({
      lines: Object.entries(lines).map(([line, { toStock, thrown }]) => ({
        line: Number(line),
        toStock: toStock || '0',
        thrown: thrown || '0',
      })),
    }),
    send: (body) => send('POST', `/api/returns/${row.id}/receive`, body),
    done: () => {
      say('It is received');
      onClose();
      router.refresh();
    },
  });
  const { values, set, troubles } = form;
  const wrong = Object.entries(troubles).find(([place]) => place.startsWith('lines'))?.[1];
  const change = (line: number, part: Partial<Looked>) =>
    set({ lines: { ...values.lines, [line]: { ...(values.lines[line] ?? { toStock: '0', thrown: '0' }), ...part } } });
  return (
    <TypedDialog
      of={form}
      title="It has come"
      about="Look at what is in it: what is good lies in stock again, the rest is thrown away. Both stand in the log."
      action="Take it in"
      onClose={onClose}
    >
      <ul>
        {row.lines.map(({ line, what, quantity }) => (
          <li key={line} className="border-b border-rule py-2">
            <span className="document private block break-words">
              {what} <span className="small text-soft">of {quantity}</span>
            </span>
            <span className="mt-1 grid grid-cols-2 gap-3">
              <label className="small grid gap-1 text-soft">
                Good
                <NumberInput
                  className="input text-right"
                  aria-label={`Good of ${what}`}
                  value={values.lines[line]?.toStock ?? ''}
                  onChange={(event) => change(line, { toStock: event.target.value })}
                />
              </label>
              <label className="small grid gap-1 text-soft">
                Thrown away
                <NumberInput
                  className="input text-right"
                  aria-label={`Thrown away of ${what}`}
                  value={values.lines[line]?.thrown ?? ''}
                  onChange={(event) => change(line, { thrown: event.target.value })}
                />
              </label>
            </span>
          </li>
        ))}
      </ul>
      {wrong ? (
        <p role="status" className="font-medium text-brick">
          {wrong}
        </p>
      ) : null}
    </TypedDialog>
  );
}
