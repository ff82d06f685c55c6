'use client';
import { useState } from 'react';
import { TickField } from '../kit/check';
import { Field } from '../kit/field';
import { FormDialog } from '../kit/form-dialog';
import { SelectField } from '../kit/select';
import type { BankLineShown } from './bank-shown';
import type { Taken } from './proposals';

const KINDS = [
  ['other', 'Something else of the business'],
  ['charge', 'The bank’s own charge'],
  ['cash', 'Cash from the till'],
] as const;

/** A line that is not from a customer: what it is, in words, and whether it is always so. */
export function AsideDialog({
  line,
  busy,
  onTake,
  onClose,
}: {
  line: BankLineShown;
  busy: boolean;
  onTake: (taken: Taken) => Promise<string>;
  onClose: () => void;
}) {
  const [kind, setKind] = useState<(typeof KINDS)[number][0]>('other');
  const [note, setNote] = useState('');
  const [always, setAlways] = useState(false);
  return (
    <FormDialog
      title="Not from a customer"
      about="It is booked beside what customers owe, and leaves what waits."
      action="Take it"
      busy={busy}
      onClose={onClose}
      onSure={() =>
        onTake({ parts: [{ kind: 'aside', id: kind, minor: line.open }], rest: 'open', note: note.trim(), always })
      }
    >
      <SelectField label="What it is" value={kind} onChange={(event) => setKind(event.target.value as typeof kind)}>
        {KINDS.map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </SelectField>
      <Field
        label="In words"
        hint="As it is to stand on the line, such as Strings from the wholesaler."
        value={note}
        maxLength={120}
        onChange={(event) => setNote(event.target.value)}
      />
      {line.name || line.otherAccount || line.text ? (
        <TickField
          label={`Always like this for ${line.name || (line.otherAccount ? `account ${line.otherAccount}` : `“${line.text.slice(0, 40)}”`)}`}
          checked={always}
          onChange={(event) => setAlways(event.target.checked)}
        />
      ) : null}
    </FormDialog>
  );
}
