'use client';
import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { lineOfItem } from '@/core/invoice/item-line';
import { MOST_FILES, newLine, type PaperFile, type PaperLine } from '@/core/paper/paper';
import { ItemPicker } from '../composer/item-picker';
import { FileDrop } from '../import/file-drop';
import { Button } from '../kit/button';
import { TickField } from '../kit/check';
import { Field, FieldError, TextField } from '../kit/field';
import { NumberField } from '../kit/number-input';
import { Segment } from '../kit/segment';
import { SelectField } from '../kit/select';
import { upload } from '../kit/send-file';
import type { PlanTyped } from './plan-typed';

type Props = {
  typed: PlanTyped;
  troubles: Readonly<Record<string, string>>;
  change: (part: Partial<PlanTyped>) => void;
};

/** What is charged: lines with a price, taxed by the customer's place. */
export function PlanLines({
  typed,
  troubles,
  change,
  classes,
  currency,
}: Props & { classes: readonly string[]; currency: string }) {
  const set = (id: string, part: Partial<PaperLine>) =>
    change({ lines: typed.lines.map((line) => (line.id === id ? { ...line, ...part } : line)) });
  return (
    <fieldset className="grid gap-2.5">
      <legend className="label mb-1">{typed.kind === 'membership' ? 'Charged each time' : 'Charged in all'}</legend>
      {typed.lines.map((line, at) => (
        <div key={line.id} className="grid grid-cols-[minmax(0,1fr)_52px_92px_auto] items-start gap-2">
          <Field
            label={at === 0 ? 'What' : `What, line ${at + 1}`}
            value={line.what}
            maxLength={500}
            error={troubles[`${line.id}.what`]}
            onChange={(event) => set(line.id, { what: event.target.value })}
          />
          <NumberField
            label="Pieces"
            value={line.quantity}
            error={troubles[`${line.id}.quantity`]}
            onChange={(event) => set(line.id, { quantity: event.target.value })}
          />
          <NumberField
            label="Price"
            value={line.price}
            error={troubles[`${line.id}.price`]}
            onChange={(event) => set(line.id, { price: event.target.value })}
          />
          {typed.lines.length > 1 ? (
            <button
              type="button"
              aria-label={`Remove line ${at + 1}`}
              className="mt-6 grid size-8 place-items-center text-soft hover:text-ink"
              onClick={() => change({ lines: typed.lines.filter(({ id }) => id !== line.id) })}
            >
              <Trash2 size={15} strokeWidth={1.5} aria-hidden="true" />
            </button>
          ) : null}
          <SelectField
            label="Taxed as"
            className="col-span-full max-w-[210px]"
            value={line.taxClass ?? 'standard'}
            onChange={(event) => set(line.id, { taxClass: event.target.value, taxesBy: 'place' })}
          >
            {[...new Set([...classes, line.taxClass ?? 'standard'])].map((one) => (
              <option key={one}>{one}</option>
            ))}
          </SelectField>
        </div>
      ))}
      <div className="flex flex-wrap items-center gap-x-5">
        <Button
          look="link"
          opens
          className="inline-flex items-center gap-1"
          onClick={() =>
            change({
              lines: [...typed.lines, newLine(crypto.randomUUID(), 'piece', { quantity: '1', taxesBy: 'place' })],
            })
          }
        >
          <Plus size={14} strokeWidth={1.6} aria-hidden="true" /> Another line
        </Button>
        <ItemPicker
          currency={currency}
          onChoose={(item, option) => {
            const line = { ...lineOfItem(crypto.randomUUID(), item, option, currency), quantity: '1' };
            const last = typed.lines.at(-1);
            // A line that is only called as the plan is gives way.
            const empty = last && !last.price.trim() && (last.what === '' || last.what === typed.name);
            change({
              lines: empty ? typed.lines.toSpliced(-1, 1, line) : [...typed.lines, line],
              ...(typed.name.trim() ? {} : { name: line.what }),
            });
          }}
        />
      </div>
    </fieldset>
  );
}

/** Files that go with the plan's invoices, and stay with the plan. */
function PlanFiles({
  files,
  onChange,
}: {
  files: readonly PaperFile[];
  onChange: (files: readonly PaperFile[]) => void;
}) {
  const [trouble, setTrouble] = useState('');
  return (
    <div>
      <span className="label mb-1">Files</span>
      <ul>
        {files.map((file) => (
          <li key={file.id} className="flex items-baseline gap-3 border-b border-rule py-1">
            <span className="min-w-0 flex-1 truncate">{file.name}</span>
            <Button
              look="small-link"
              aria-label={`Remove ${file.name}`}
              onClick={() => onChange(files.filter(({ id }) => id !== file.id))}
            >
              Away
            </Button>
          </li>
        ))}
      </ul>
      {files.length < MOST_FILES ? (
        <FileDrop
          label="Add a file"
          accept=".pdf,.png,.jpg,.jpeg,.gif,.webp,.tif,.tiff,.docx,.xlsx,.csv"
          onFile={async (file) => {
            const answer = await upload(file, 'attachment', file.name);
            setTrouble(answer.ok ? '' : answer.words);
            if (answer.ok) onChange([...files, { ...answer.value, approve: false }]);
          }}
        />
      ) : null}
      {trouble ? <FieldError>{trouble}</FieldError> : null}
    </div>
  );
}

/** What differs between a membership and parts of a balance, and how the customer is told. */
export function PlanMore({ typed, troubles, change, leftText }: Props & { leftText: string }) {
  const parts = typed.kind === 'instalments';
  return (
    <div className="grid gap-3.5">
      {parts ? (
        <>
          <NumberField
            label="Deposit, charged at the start"
            placeholder="none"
            hint="Such as 20% or 150."
            value={typed.deposit}
            error={troubles.deposit}
            onChange={(event) => change({ deposit: event.target.value })}
          />
          {leftText ? (
            <Segment
              label={leftText}
              value={typed.leftover}
              choices={[
                ['even', 'One each on the first'],
                ['last', 'All on the last'],
              ]}
              onChoose={(leftover) => change({ leftover })}
            />
          ) : null}
        </>
      ) : (
        <>
          <NumberField
            label="Set-up fee, once"
            placeholder="none"
            value={typed.setUp}
            error={troubles.setUp}
            onChange={(event) => change({ setUp: event.target.value })}
          />
          <TickField
            label="The first period is free"
            checked={typed.freeFirst}
            onChange={(event) => change({ freeFirst: event.target.checked })}
          />
        </>
      )}
      <Segment
        label="Paid by"
        value={typed.pay}
        choices={[
          ['card', 'Card on file'],
          ['invoice', 'Invoice each time'],
        ]}
        onChoose={(pay) => change({ pay })}
      />
      {typed.pay === 'invoice' ? (
        <Field
          label="Days to pay"
          hint={
            typed.kind === 'instalments' ? 'One invoice over the whole; each part is asked for on its day.' : undefined
          }
          inputMode="numeric"
          value={typed.dueDays}
          onChange={(event) => change({ dueDays: event.target.value })}
        />
      ) : null}
      <TickField
        label="The first charge is made when it starts"
        hint="Not on the first day of the calendar."
        checked={typed.firstNow}
        onChange={(event) => change({ firstNow: event.target.checked })}
      />
      <TickField
        label="A receipt by mail for every charge"
        checked={typed.receipts}
        onChange={(event) => change({ receipts: event.target.checked })}
      />
      {typed.pay === 'card' ? (
        <Field
          label="Tell the customer before each charge, in days"
          placeholder="not at all"
          inputMode="numeric"
          value={typed.noticeDays}
          onChange={(event) => change({ noticeDays: event.target.value })}
        />
      ) : null}
      <Field
        label="Reference"
        value={typed.reference}
        maxLength={80}
        onChange={(event) => change({ reference: event.target.value })}
      />
      <PlanFiles files={typed.files} onChange={(files) => change({ files })} />
      <TextField
        label="Private note"
        value={typed.memo}
        maxLength={4000}
        onChange={(event) => change({ memo: event.target.value })}
      />
    </div>
  );
}
