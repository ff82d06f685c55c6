'use client';
import type { Route } from 'next';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { csvTable } from '@/core/file/csv-table';
import { bulkColumns, bulkRow, type OwnWords } from '@/core/invoice/bulk';
import { sendBy } from '@/core/invoice/send-with';
import { decimalSignOf } from '@/core/money/typed';
import { FileDrop } from '../import/file-drop';
import { fileText } from '../import/file-text';
import { useDeskLocale } from '../kit/at-desk';
import { Button } from '../kit/button';
import { TickField } from '../kit/check';
import { Field, FieldError } from '../kit/field';
import { SelectField } from '../kit/select';
import { send, troubleOf } from '../kit/send';
import { RecordTicks } from '../records/record-ticks';
import type { RecordPage } from '../records/use-record-pages';

type Row = { customer: string; own: OwnWords };

/** To whom one invoice goes: customers ticked in the list, a group, or the rows of a file with their own quantities and texts. */
export function BulkForm({
  invoiceId,
  customers,
  groups,
  lines,
  files,
  first,
  firstName,
}: {
  invoiceId: string;
  customers: RecordPage;
  groups: readonly { name: string; count: number }[];
  lines: readonly string[];
  /** How many files could come along. */
  files: number;
  /** The draft's own customer, who gets it too. */
  first: { id: string; name: string } | null;
  firstName: string;
}) {
  const router = useRouter();
  const sign = decimalSignOf(useDeskLocale());
  const [name, setName] = useState(firstName.slice(0, 80));
  const [group, setGroup] = useState('');
  const [chosen, setChosen] = useState<ReadonlyMap<string, string>>(
    () => new Map(first ? [[first.id, first.name]] : []),
  );
  const [withFiles, setWithFiles] = useState(true);
  const [rows, setRows] = useState<readonly Row[]>([]);
  const [way, setWay] = useState<'mail' | 'text' | 'link'>('mail');
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);

  async function readFile(file: File) {
    const { headings, rows: cells, broken } = csvTable(await fileText(file));
    const columns = bulkColumns(headings);
    if (!columns.some((column) => column?.is === 'customer'))
      return setTrouble('The file needs a column “Customer” or “E-mail” in its first row.');
    // Nobody is left out without a word: the file is mended first.
    if (broken[0]) return setTrouble(`Line ${broken[0].line}: ${broken[0].words} Nothing was read.`);
    setTrouble('');
    setRows(cells.map((row) => bulkRow(row, columns, sign)));
  }

  async function check() {
    setBusy(true);
    const body = { invoiceId, name, group, customerIds: [...chosen.keys()], rows, how: sendBy(way), withFiles };
    const answer = await send<{ id: string }>('POST', '/api/bulk', body);
    setBusy(false);
    if (!answer.ok) return setTrouble(troubleOf(answer));
    router.push(`/ask/bulk/${answer.value.id}` as Route);
  }

  const anybody = chosen.size > 0 || rows.length > 0 || group !== '';
  return (
    <div className="mx-auto max-w-[760px] px-4 pb-10 pt-4 sm:px-7">
      <article
        className="sheet grid grid-cols-[minmax(0,1fr)] gap-5 px-7 py-5"
        aria-label="One invoice to many customers"
      >
        <div>
          <h1 className="title-screen">One invoice to many customers</h1>
          <p className="document">
            Each gets one of their own, with a number of its own. All are checked before any is sent; the draft itself
            is gone then.
          </p>
        </div>
        <Field
          label="Name, for your own list"
          value={name}
          maxLength={80}
          onChange={(event) => setName(event.target.value)}
        />
        {groups.length > 0 ? (
          <SelectField label="A whole group" value={group} onChange={(event) => setGroup(event.target.value)}>
            <option value="">none</option>
            {groups.map((one) => (
              <option key={one.name} value={one.name}>
                {one.name}, {one.count}
              </option>
            ))}
          </SelectField>
        ) : null}
        <div>
          <span className="label mb-1">Customers from the list{chosen.size > 0 ? `, ${chosen.size} ticked` : ''}</span>
          <RecordTicks
            first={customers}
            path="/api/customers/page"
            placeholder="Name, address, phone or group"
            ticked={chosen}
            onTicked={setChosen}
          />
        </div>
        <div>
          <span className="label mb-1">Rows of a file, each with its own quantities and texts</span>
          <FileDrop
            label={rows.length > 0 ? `${rows.length} rows are read` : 'Choose a CSV file'}
            accept=".csv,text/csv"
            onFile={readFile}
          />
          <p className="small mt-1 text-soft">
            Columns: Customer (name or e-mail), Reference, Note
            {lines.slice(0, 3).map((what, at) => `, Quantity ${at + 1} (${what})`)}
            {lines.length > 3 ? ' …' : ''}, Price 1, Text 1 …
          </p>
        </div>
        <SelectField label="How they go out" value={way} onChange={(event) => setWay(event.target.value as typeof way)}>
          <option value="mail">by e-mail</option>
          <option value="text">as a text with the link</option>
          <option value="link">not at all: links to be passed on</option>
        </SelectField>
        {files > 0 ? (
          <TickField
            label={files === 1 ? 'With its file' : `With its ${files} files`}
            checked={withFiles}
            onChange={(event) => setWithFiles(event.target.checked)}
          />
        ) : null}
        {trouble ? <FieldError>{trouble}</FieldError> : null}
        <div className="flex justify-end">
          <Button look="go" busy={busy} disabled={!anybody} onClick={() => void check()} busyWords="Checking">
            Check them all
          </Button>
        </div>
      </article>
    </div>
  );
}
