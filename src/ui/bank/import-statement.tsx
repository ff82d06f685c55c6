'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { CSV_FIELDS, type CsvField, type CsvMapping, DAY_ORDERS } from '@/core/bank/statement/csv';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { FileDrop } from '../import/file-drop';
import { Button } from '../kit/button';
import { CurrencyField } from '../kit/currency-field';
import { Dialog } from '../kit/dialog';
import { Field, FieldError } from '../kit/field';
import { SelectField } from '../kit/select';
import { troubleOf } from '../kit/send';
import { sendFile } from '../kit/send-file';

type ReadStatement = {
  readonly account: string;
  readonly currency: string;
  readonly lines: number;
  readonly newLines: number;
  readonly balances: 'agree' | 'differ' | 'unknown';
  readonly off: number;
};
type Columns = {
  readonly kind: 'columns';
  readonly headings: readonly string[];
  readonly samples: readonly (readonly string[])[];
  readonly mapping: CsvMapping;
};
type Imported =
  | { readonly kind: 'read'; readonly statements: readonly ReadStatement[]; readonly matched: number }
  | Columns;

const ORDER_WORDS = {
  ymd: 'Year first, 2026-11-24',
  dmy: 'Day first, 24.11.2026',
  mdy: 'Month first, 11/24/2026',
} as const;

/** What a file brought, statement by statement. */
function Brought({
  statements,
  matched,
  locale,
}: {
  statements: readonly ReadStatement[];
  matched: number;
  locale: string;
}) {
  const text = (minor: number, currency: string) => moneyText(money(BigInt(Math.abs(minor)), currency), locale);
  return (
    <>
      <ul className="document grid gap-2">
        {statements.map((one, at) => (
          <li key={at}>
            <b className="font-semibold">
              ·{one.account.slice(-4)} {one.currency}
            </b>
            :{' '}
            {one.newLines === 0
              ? `already here, ${one.lines} of ${one.lines} lines.`
              : one.newLines === one.lines
                ? `${one.lines} ${one.lines === 1 ? 'line' : 'lines'}.`
                : `${one.newLines} of ${one.lines} lines are new.`}{' '}
            {one.balances === 'differ' ? (
              <span className="text-brick">
                Opening and lines come to {text(one.off, one.currency)} {one.off > 0 ? 'more' : 'less'} than its
                closing: ask the bank for the whole statement.
              </span>
            ) : one.balances === 'agree' ? (
              <span className="text-leaf">Opening, lines and closing agree.</span>
            ) : (
              <span className="text-soft">It names no opening or closing.</span>
            )}
          </li>
        ))}
      </ul>
      {matched > 0 ? (
        <p className="mt-3">
          {matched === 1 ? 'One line' : `${matched} lines`} named {matched === 1 ? 'itself' : 'themselves'} and{' '}
          {matched === 1 ? 'is' : 'are'} matched.
        </p>
      ) : null}
    </>
  );
}

/** What the columns of a CSV are; kept for the next file of that bank. */
function ColumnsForm({
  columns: { headings, samples, mapping },
  trouble,
  busy,
  onTold,
}: {
  columns: Columns;
  trouble: string;
  busy: boolean;
  onTold: (mapping: CsvMapping) => void;
}) {
  const [told, setTold] = useState(mapping);
  const setColumn = (at: number, field: string) =>
    setTold({
      ...told,
      columns: told.columns.map((one, index) => (index === at ? ((field || null) as CsvField | null) : one)),
    });
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        onTold(told);
      }}
    >
      <ul className="grid gap-2">
        {headings.map((heading, at) => (
          <li key={at} className="grid grid-cols-2 items-center gap-3 border-b border-rule pb-2">
            <span className="min-w-0">
              <b className="block truncate font-semibold">{heading || `Column ${at + 1}`}</b>
              <span className="small private block truncate text-soft">
                {samples
                  .map((row) => row[at] ?? '')
                  .filter(Boolean)
                  .join(' · ')}
              </span>
            </span>
            <SelectField
              label={`What ${heading || `column ${at + 1}`} is`}
              value={told.columns[at] ?? ''}
              onChange={(event) => setColumn(at, event.target.value)}
            >
              <option value="">left out</option>
              {Object.entries(CSV_FIELDS).map(([field, words]) => (
                <option key={field} value={field}>
                  {words}
                </option>
              ))}
            </SelectField>
          </li>
        ))}
      </ul>
      <div className="grid grid-cols-2 gap-3">
        <SelectField
          label="Days are written"
          value={told.dayOrder}
          onChange={(event) => setTold({ ...told, dayOrder: event.target.value as CsvMapping['dayOrder'] })}
        >
          {DAY_ORDERS.map((order) => (
            <option key={order} value={order}>
              {ORDER_WORDS[order]}
            </option>
          ))}
        </SelectField>
        <SelectField
          label="Sums are written"
          value={told.decimal}
          onChange={(event) => setTold({ ...told, decimal: event.target.value as '.' | ',' })}
        >
          <option value=".">1,234.56</option>
          <option value=",">1.234,56</option>
        </SelectField>
        <Field
          label="Number of the account"
          value={told.account}
          maxLength={40}
          onChange={(event) => setTold({ ...told, account: event.target.value })}
        />
        <CurrencyField value={told.currency} onChoose={(code) => setTold({ ...told, currency: code })} />
      </div>
      {trouble ? <FieldError>{trouble}</FieldError> : null}
      <div className="flex justify-end">
        <Button type="submit" look="go" busy={busy}>
          Read the lines
        </Button>
      </div>
    </form>
  );
}

/** Reads a bank's file, asks once what the columns of a CSV are, and says what the file brought. */
export function ImportStatement({ locale }: { locale: string }) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const [file, setFile] = useState<File | null>(null);
  const [result, setResult] = useState<Imported | null>(null);

  function show(next: boolean) {
    setOpen(next);
    setTrouble('');
    setResult(null);
    setFile(null);
  }

  async function read(picked: File, mapping?: CsvMapping) {
    setBusy(true);
    setTrouble('');
    setFile(picked);
    const told = mapping ? `&mapping=${encodeURIComponent(JSON.stringify(mapping))}` : '';
    const answer = await sendFile<Imported>(
      `/api/bank/statements?name=${encodeURIComponent(picked.name)}${told}`,
      picked,
    );
    setBusy(false);
    if (!answer.ok) return setTrouble(answer.fields[0]?.words ?? troubleOf(answer));
    setResult(answer.value);
    if (answer.value.kind === 'read') router.refresh();
  }

  return (
    <>
      <Button look="link" onClick={() => show(true)}>
        Import a statement
      </Button>
      <Dialog
        open={open}
        onOpenChange={show}
        title={result?.kind === 'columns' ? 'What the columns are' : result ? 'Read' : 'A statement of the bank'}
        about={
          result?.kind === 'columns'
            ? 'It is kept: the next file of this bank is read by itself.'
            : result
              ? ''
              : 'camt.053, MT940, OFX, or CSV. What was read before is not read twice.'
        }
      >
        {result?.kind === 'columns' ? (
          <ColumnsForm
            columns={result}
            trouble={trouble}
            busy={busy}
            onTold={(mapping) => file && void read(file, mapping)}
          />
        ) : result ? (
          <>
            <Brought statements={result.statements} matched={result.matched} locale={locale} />
            <div className="mt-4 flex justify-end">
              <Button look="go" autoFocus onClick={() => show(false)}>
                Look at the lines
              </Button>
            </div>
          </>
        ) : (
          <>
            <FileDrop
              label={busy ? 'Reading it' : 'Choose a file'}
              accept=".xml,.sta,.mt940,.940,.txt,.ofx,.qfx,.csv"
              onFile={(picked) => read(picked)}
            />
            {trouble ? <FieldError>{trouble}</FieldError> : null}
          </>
        )}
      </Dialog>
    </>
  );
}
