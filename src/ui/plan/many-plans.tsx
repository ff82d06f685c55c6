'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { PLAN_COLUMNS } from '@/core/plan/rows';
import { FileDrop } from '../import/file-drop';
import { fileText } from '../import/file-text';
import { Amount } from '../kit/amount';
import { Button } from '../kit/button';
import { FieldError, TextField } from '../kit/field';
import { send } from '../kit/send';
import { say } from '../kit/toasts';

type Row = {
  at: number;
  email: string;
  name: string;
  plan: string;
  minor: number;
  currency: string;
  known: boolean;
  trouble: string;
};

const SAMPLE = `${PLAN_COLUMNS.join(',')}\nida@marsh.example,Ida Marsh,Care club,9.50,2027-01-31,1,month,,,\n`;

/** Many plans from a table: every row is looked at first, then each customer gets the link to agree and enter a card. */
export function ManyPlans({ locale, mayAsk }: { locale: string; mayAsk: boolean }) {
  const router = useRouter();
  const [text, setText] = useState('');
  const [rows, setRows] = useState<readonly Row[] | null>(null);
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const key = useRef('');

  async function check(wanted = text) {
    setBusy(true);
    const answer = await send<Row[]>('POST', '/api/plans/many', { text: wanted });
    setBusy(false);
    setTrouble(answer.ok ? '' : answer.words);
    setRows(answer.ok ? answer.value : null);
    key.current = crypto.randomUUID();
  }
  async function make() {
    setBusy(true);
    const answer = await send<{ sent: number }>('POST', '/api/plans/many', { text, key: key.current });
    setBusy(false);
    if (!answer.ok) return setTrouble(answer.words);
    say(`${answer.value.sent} ${answer.value.sent === 1 ? 'link is' : 'links are'} on the way`);
    router.push('/ask/plans' as Route);
    router.refresh();
  }
  const good = rows?.filter((row) => !row.trouble).length ?? 0;
  return (
    <div className="mx-auto max-w-[980px] px-4 pb-24 sm:px-7">
      <div className="flex items-baseline gap-4 pb-3">
        <h1 className="title-screen flex-1">Plans from a table</h1>
        <Link className="link" href={'/ask/plans' as Route}>
          Billing plans
        </Link>
      </div>
      <div className="sheet grid gap-4 px-6 py-5 sm:px-8">
        <p className="text-soft">
          One row is one plan. The first line holds the headings: {PLAN_COLUMNS.join(', ')}. Whoever is not a customer
          yet becomes one. Nothing is written or sent before every row was looked at.
        </p>
        <FileDrop
          label="Table"
          accept=".csv,text/csv"
          hint="or drop a CSV file here"
          onFile={async (file) => {
            const read = await fileText(file);
            setText(read);
            await check(read);
          }}
        />
        <TextField
          label="Or paste it here"
          rows={6}
          placeholder={SAMPLE}
          value={text}
          onChange={(event) => {
            setText(event.target.value);
            setRows(null);
          }}
        />
        {trouble ? <FieldError>{trouble}</FieldError> : null}
        {rows ? (
          <table className="w-full text-[13px]">
            <caption className="pb-2 text-left font-semibold">
              {good} of {rows.length} {rows.length === 1 ? 'row is' : 'rows are'} right
            </caption>
            <thead>
              <tr className="border-b border-ink text-left text-soft">
                {['Row', 'Customer', 'Plan', 'Sum with tax', 'What is wrong'].map((head) => (
                  <th key={head} scope="col" className="py-1 font-medium">
                    {head}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => (
                <tr key={row.at} className="border-b border-rule align-baseline">
                  <td className="py-1.5">{row.at + 2}</td>
                  <td>
                    <span className="private">{row.name || row.email}</span>
                    <span className="block text-soft">{row.known ? row.email : `${row.email}, new`}</span>
                  </td>
                  <td>{row.plan}</td>
                  <td className="font-serif">
                    {row.minor > 0 ? <Amount minor={row.minor} currency={row.currency} locale={locale} /> : ''}
                  </td>
                  <td className="text-brick">{row.trouble}</td>
                </tr>
              ))}
            </tbody>
          </table>
        ) : null}
        <div className="flex justify-end gap-3">
          <Button disabled={busy || !text.trim()} onClick={() => void check()}>
            Look at the rows
          </Button>
          <Button
            look="go"
            busy={busy}
            disabled={!mayAsk || good === 0}
            onClick={() => void make()}
            busyWords="One moment"
          >
            {good > 0 ? `Make ${good} and send the links` : 'Make them and send the links'}
          </Button>
        </div>
      </div>
    </div>
  );
}
