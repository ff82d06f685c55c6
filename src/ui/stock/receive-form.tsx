'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { FileDrop } from '../import/file-drop';
import { useBusinessCurrency } from '../kit/at-desk';
import { Button } from '../kit/button';
import { EditableTable } from '../kit/editable-table';
import { Field } from '../kit/field';
import { Form, useTyped } from '../kit/form';
import { NumberInput } from '../kit/number-input';
import { send } from '../kit/send';
import { upload } from '../kit/send-file';
import { say, sayTrouble } from '../kit/toasts';
import { useReader } from '../pack/use-reader';
import { ListDrop } from './list-drop';
import type { StockShown } from './shown';
import { ThingPicker } from './thing-picker';

type Line = {
  readonly id: string;
  readonly itemId: string;
  readonly optionId: string | null;
  readonly name: string;
  readonly code: string;
  readonly quantity: string;
  readonly cost: string;
};

type Values = {
  requestKey: string;
  supplier: string;
  paper: string;
  file: { readonly id: string; readonly name: string } | null;
  lines: readonly Line[];
};

const rules = () => import('@/input/stock-input').then(({ ReceiveInput }) => ReceiveInput);

const blank = (): Values => ({ requestKey: crypto.randomUUID(), supplier: '', paper: '', file: null, lines: [] });

const lineOf = ({ itemId, optionId, name, code }: StockShown, quantity: string, cost = ''): Line => ({
  ...{ id: crypto.randomUUID(), itemId, optionId, name, code, quantity, cost },
});

/** One more of what a reader read: on its line, or on a new one. */
const oneMore = (lines: readonly Line[], thing: StockShown): readonly Line[] => {
  const at = lines.findIndex((line) => line.itemId === thing.itemId && line.optionId === thing.optionId);
  if (at < 0) return [...lines, lineOf(thing, '1')];
  return lines.map((line, nth) =>
    nth === at ? { ...line, quantity: String(Number(line.quantity || '0') + 1) } : line,
  );
};

/** What came from a supplier, line by line, with its paper. */
export function ReceiveForm({
  begun,
  sums,
  mayFile,
}: {
  begun: readonly StockShown[];
  sums: boolean;
  mayFile: boolean;
}) {
  const router = useRouter();
  const currency = useBusinessCurrency();
  const [scanSays, setScanSays] = useState('');
  const form = useTyped<Values>({
    start: { ...blank(), lines: begun.map((thing) => lineOf(thing, thing.order)) },
    keepAs: 'stock:receive',
    shape: rules,
    body: ({ file, lines, ...rest }) => ({
      ...rest,
      fileId: file?.id ?? null,
      lines: lines.map(({ itemId, optionId, quantity, cost }) => ({ itemId, optionId, quantity, cost })),
    }),
    send: (body) => send('POST', '/api/stock/receive', body),
    done: (_, { lines }) => {
      form.leave();
      say(lines.length === 1 ? `${lines[0]?.name} is received` : `${lines.length} lines are received`);
      router.push('/deliver/stock');
      router.refresh();
    },
  });
  const { values, set, at } = form;
  const wrong = values.lines.map((_, nth) => at(`lines.${nth}.quantity`) ?? at(`lines.${nth}.cost`)).find(Boolean);

  useReader(async (code) => {
    const answer = await send<StockShown[]>('POST', '/api/stock/codes', { codes: [code] });
    if (!answer.ok) return setScanSays(answer.words);
    const [thing] = answer.value;
    setScanSays(thing ? '' : `${code}: nothing that is counted has this code.`);
    if (thing) set({ lines: oneMore(values.lines, thing) });
  });

  return (
    <article className="sheet max-w-[820px] px-7 py-5" aria-label="Receive goods">
      <Form of={form} legend="What came">
        <div className="flex flex-wrap items-baseline gap-4">
          <h1 className="title-screen min-w-0 flex-1">Receive goods</h1>
          <Button
            type="submit"
            look="go"
            busy={form.busy}
            busyWords="Writing down"
            disabled={values.lines.length === 0}
          >
            Put into stock
          </Button>
        </div>
        <div className="grid gap-4 sm:grid-cols-2">
          <Field
            label="From (supplier)"
            value={values.supplier}
            error={at('supplier')}
            maxLength={160}
            onChange={(event) => set({ supplier: event.target.value })}
          />
          <Field
            label="Number of their paper"
            value={values.paper}
            error={at('paper')}
            maxLength={80}
            onChange={(event) => set({ paper: event.target.value })}
          />
        </div>
        {values.lines.length > 0 ? (
          <EditableTable<Line>
            called="Line"
            rows={values.lines}
            columns={[
              {
                head: 'What',
                cell: ({ name, code }) => (
                  <>
                    <span className="block font-serif text-[15.5px]/5 font-medium">{name}</span>
                    <span className="small text-soft">{code}</span>
                  </>
                ),
              },
              {
                head: 'How many',
                align: 'right',
                cell: (line, change, name) => (
                  <NumberInput
                    className="input w-[96px] text-right"
                    aria-label={name('how many')}
                    value={line.quantity}
                    onChange={(event) => change({ quantity: event.target.value })}
                  />
                ),
              },
              ...(sums
                ? [
                    {
                      head: `Cost of one (${currency})`,
                      align: 'right' as const,
                      cell: (line: Line, change: (part: Partial<Line>) => void, name: (field: string) => string) => (
                        <NumberInput
                          className="input w-[110px] text-right"
                          aria-label={name('cost of one')}
                          placeholder="not known"
                          value={line.cost}
                          onChange={(event) => change({ cost: event.target.value })}
                        />
                      ),
                    },
                  ]
                : []),
            ]}
            onChange={(lines) => set({ lines })}
          />
        ) : (
          <p className="document text-soft">
            Add what came by its name, read it with a barcode reader, or take the supplier’s list from a file.
          </p>
        )}
        {wrong || at('lines') || scanSays ? (
          <p role="status" className="font-medium text-brick">
            {wrong || at('lines') || scanSays}
          </p>
        ) : null}
        <p>
          <ThingPicker words="Add what came" onChoose={(thing) => set({ lines: oneMore(values.lines, thing) })} />
        </p>
        <div className="grid items-start gap-4 sm:grid-cols-2">
          <ListDrop
            label="Take a list from a file"
            onRead={(rows) =>
              set({
                lines: [...values.lines, ...rows.map(({ thing, quantity, cost }) => lineOf(thing, quantity, cost))],
              })
            }
          />
          {mayFile ? (
            values.file ? (
              <p>
                <span className="document">{values.file.name}</span>{' '}
                <Button look="small-link" onClick={() => set({ file: null })}>
                  Without it
                </Button>
              </p>
            ) : (
              <FileDrop
                label="Add their paper"
                accept="application/pdf,image/png,image/jpeg"
                hint="as a PDF or a picture"
                onFile={async (file) => {
                  const answer = await upload(file, 'attachment', file.name);
                  if (answer.ok) set({ file: { id: answer.value.id, name: file.name } });
                  else sayTrouble(answer.words);
                }}
              />
            )
          ) : null}
        </div>
      </Form>
    </article>
  );
}
