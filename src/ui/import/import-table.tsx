'use client';
import type { Route } from 'next';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import type { OnFile } from '@/core/customer/import-rows';
import type { BrokenRow, Table } from '@/core/file/table';
import type { ColumnsAs } from '@/core/import/columns';
import { Button } from '../kit/button';
import { FieldError } from '../kit/field';
import { Segment } from '../kit/segment';
import { Select } from '../kit/select';
import { send } from '../kit/send';
import { FileDrop } from './file-drop';
import { readTable } from './read-table';

type Refused = { readonly at: number; readonly reasons: readonly string[] };
type Outcome = { written: number; updated: number; refused: Refused[] };

/** What is brought in, and how it is called. */
export type ImportOf<Field extends string> = {
  /** `customer`, `customers`. */
  readonly one: string;
  readonly more: string;
  readonly title: string;
  readonly about: string;
  /** Which files are taken, and the words for them. */
  readonly takes: { readonly words: string; readonly accept: string };
  /** What a column can be, with its words. */
  readonly fields: Readonly<Record<Field, string>>;
  readonly guess: (headings: readonly string[]) => ColumnsAs<Field>;
  /** What is still to be said of the columns; empty where enough is. */
  readonly missing: (mapping: ColumnsAs<Field>) => string;
  readonly path: string;
  /** Whether what is there already can get what the file says. */
  readonly updates: boolean;
  readonly home: { readonly words: string; readonly path: string };
};

const NONE: Outcome = { written: 0, updated: 0, refused: [] };

const PART = 1000;
const SAMPLES = 3;
const SHOWN = 100;

const cell = (text: string): string => {
  const safe = /^[=+\-@\t\r]/.test(text) ? `'${text}` : text;
  return /[",\r\n]/.test(safe) ? `"${safe.replace(/"/g, '""')}"` : safe;
};

/** The refused rows as they came, with the reasons in a column of their own. */
function refusedFile(table: Table, refused: readonly Refused[]): Blob {
  const lines = [
    [...table.headings, 'Why not'],
    ...refused.map(({ at, reasons }) => [...(table.rows[at] ?? []), reasons.join('; ')]),
    ...table.broken.map(({ line, raw, words }) => [
      raw,
      ...table.headings.slice(1).map(() => ''),
      `Line ${line}: ${words}`,
    ]),
  ];
  return new Blob([lines.map((line) => line.map(cell).join(',')).join('\r\n')], { type: 'text/csv' });
}

const many = (count: number, one: string, more: string): string =>
  `${count.toLocaleString('en')} ${count === 1 ? one : more}`;

/** What became of the rows, or would. */
function outcomeWords({ written, updated }: Outcome, bad: number, isChecked: boolean): string {
  const parts = isChecked
    ? [
        `${written.toLocaleString('en')} can be added`,
        ...(updated > 0 ? [`${updated.toLocaleString('en')} updated`] : []),
        `${bad.toLocaleString('en')} cannot`,
      ]
    : [
        `${many(written, 'was', 'were')} added`,
        ...(updated > 0 ? [`${many(updated, 'was', 'were')} updated`] : []),
        `${many(bad, 'was', 'were')} not`,
      ];
  return `${parts.join(', ')}.`;
}

const goWords = ({ written, updated }: Outcome, { one, more }: Pick<ImportOf<string>, 'one' | 'more'>): string =>
  [
    ...(written > 0 ? [`Add ${many(written, one, more)}`] : []),
    ...(updated > 0 ? [`${written > 0 ? 'update' : 'Update'} ${updated.toLocaleString('en')}`] : []),
  ].join(', ') || `Add ${more}`;

/** All rows that do not come in, by their line: those that cannot be read, and those that are refused. */
const badRows = (table: Table | null, refused: readonly Refused[]): Pick<BrokenRow, 'line' | 'words'>[] =>
  [
    ...(table?.broken ?? []),
    ...refused.map(({ at, reasons }) => ({ line: table?.lines[at] ?? at + 2, words: reasons.join('; ') })),
  ].sort((a, b) => a.line - b.line);

/** Rows of a file: what each column is, every row checked, then written; what is refused comes back as a file. */
export function ImportTable<Field extends string>({ of }: { of: ImportOf<Field> }) {
  const router = useRouter();
  const [table, setTable] = useState<Table | null>(null);
  const [mapping, setMapping] = useState<ColumnsAs<Field>>([]);
  const [stage, setStage] = useState<'choose' | 'map' | 'checking' | 'checked' | 'writing' | 'written'>('choose');
  const [progress, setProgress] = useState(0);
  const [outcome, setOutcome] = useState<Outcome>(NONE);
  const [onFile, setOnFile] = useState<OnFile>('refuse');
  const [trouble, setTrouble] = useState('');
  const [href, setHref] = useState('');
  const stopped = useRef(false);
  useEffect(() => {
    stopped.current = false;
    return () => {
      stopped.current = true;
    };
  }, []);

  useEffect(() => {
    if (!table || outcome.refused.length + table.broken.length === 0) return setHref('');
    const url = URL.createObjectURL(refusedFile(table, outcome.refused));
    setHref(url);
    return () => URL.revokeObjectURL(url);
  }, [table, outcome]);

  async function choose(file: File) {
    setTrouble('');
    try {
      const read = await readTable(file);
      if (read.rows.length === 0)
        return setTrouble(
          read.broken[0]
            ? `No row of this file can be read. Line ${read.broken[0].line}: ${read.broken[0].words}`
            : 'There are no rows below the headings of this file.',
        );
      setTable(read);
      setMapping(of.guess(read.headings));
      setStage('map');
    } catch {
      setTrouble(`This file cannot be read. Save it as ${of.takes.words} and choose it again.`);
    }
  }

  async function go(write: boolean) {
    if (!table) return;
    setTrouble('');
    setProgress(0);
    setStage(write ? 'writing' : 'checking');
    const whole: Outcome = { written: 0, updated: 0, refused: [] };
    for (let from = 0; from < table.rows.length && !stopped.current; from += PART) {
      const rows = table.rows.slice(from, from + PART);
      const answer = await send<Outcome>('POST', of.path, {
        mapping,
        rows,
        write,
        ...(of.updates ? { onFile } : {}),
      });
      if (!answer.ok) {
        setTrouble(`${answer.words} ${write ? `${whole.written} are written; the rest can be imported again.` : ''}`);
        return setStage('map');
      }
      whole.written += answer.value.written;
      whole.updated += answer.value.updated;
      whole.refused.push(...answer.value.refused.map(({ at, reasons }) => ({ at: at + from, reasons })));
      setProgress(Math.min(from + PART, table.rows.length));
    }
    setOutcome(whole);
    setStage(write ? 'written' : 'checked');
    if (write) router.refresh();
  }

  const bad = badRows(table, outcome.refused);
  const missing = of.missing(mapping);
  return (
    <article className="sheet max-w-[760px] px-7 py-5" aria-label={of.title}>
      <h1 className="title-screen mb-2">{of.title}</h1>
      {stage === 'choose' ? (
        <>
          <p className="document mb-4 max-w-[52ch]">{of.about}</p>
          <FileDrop label={`Choose a ${of.takes.words} file`} accept={of.takes.accept} onFile={choose} />
        </>
      ) : null}
      {table && stage === 'map' ? (
        <>
          <p className="document mb-3">{table.rows.length.toLocaleString('en')} rows. What is in each column?</p>
          <div
            className="max-h-[52vh] overflow-auto border-t border-ink"
            tabIndex={0}
            role="group"
            aria-label="Columns"
          >
            {table.headings.map((heading, at) => (
              <div key={at} className="grid items-center gap-3 border-b border-rule py-2 sm:grid-cols-[1fr_220px]">
                <div className="min-w-0">
                  <p className="font-semibold">{heading || `Column ${at + 1}`}</p>
                  <p className="private small truncate text-soft">
                    {table.rows
                      .slice(0, SAMPLES)
                      .map((row) => row[at])
                      .filter(Boolean)
                      .join(' · ') || 'empty'}
                  </p>
                </div>
                <Select
                  aria-label={`${heading || `Column ${at + 1}`} is`}
                  value={mapping[at] ?? ''}
                  onChange={(event) =>
                    setMapping(mapping.toSpliced(at, 1, (event.target.value || null) as Field | null))
                  }
                >
                  <option value="">left out</option>
                  {Object.entries<string>(of.fields).map(([field, words]) => (
                    <option
                      key={field}
                      value={field}
                      disabled={mapping.some((other, place) => other === field && place !== at)}
                    >
                      {words}
                    </option>
                  ))}
                </Select>
              </div>
            ))}
          </div>
          {of.updates ? (
            <div className="mt-4">
              <Segment
                label={`${of.more[0]?.toUpperCase()}${of.more.slice(1)} who are on file already`}
                value={onFile}
                choices={[
                  ['refuse', 'stay as they are'],
                  ['update', 'get what the file says'],
                ]}
                onChoose={setOnFile}
              />
            </div>
          ) : null}
          <div className="mt-4 flex items-center justify-end gap-3">
            {missing ? <span className="text-soft">{missing}</span> : null}
            <Button look="go" disabled={missing !== ''} onClick={() => void go(false)}>
              Check {table.rows.length.toLocaleString('en')} rows
            </Button>
          </div>
        </>
      ) : null}
      {table && (stage === 'checking' || stage === 'writing') ? (
        <div className="py-6" role="status">
          <p className="document mb-2">
            {stage === 'checking' ? 'Checking' : 'Writing'}, {progress.toLocaleString('en')} of{' '}
            {table.rows.length.toLocaleString('en')} rows
          </p>
          <progress
            className="h-2 w-full accent-plum"
            value={progress}
            max={table.rows.length}
            aria-label="Rows done"
          />
        </div>
      ) : null}
      {table && (stage === 'checked' || stage === 'written') ? (
        <>
          <p className="document mb-3" role="status">
            {outcomeWords(outcome, bad.length, stage === 'checked')}
          </p>
          {bad.length > 0 ? (
            <>
              <ul className="max-h-[36vh] overflow-auto border-t border-ink" aria-label="Rows that cannot be added">
                {bad.slice(0, SHOWN).map(({ line, words }) => (
                  <li key={line} className="grid grid-cols-[70px_1fr] gap-2 border-b border-rule py-1">
                    <span className="text-soft">Line {line}</span>
                    <span>{words}</span>
                  </li>
                ))}
              </ul>
              <p className="mt-2">
                {bad.length > SHOWN ? `The first ${SHOWN} are shown. ` : ''}
                <a className="link" href={href} download="rows-not-added.csv">
                  All of them as CSV, with the reasons
                </a>
              </p>
            </>
          ) : null}
          <div className="mt-4 flex justify-end gap-3">
            {stage === 'checked' ? (
              <>
                <Button onClick={() => setStage('map')}>Back to the columns</Button>
                <Button look="go" disabled={outcome.written + outcome.updated === 0} onClick={() => void go(true)}>
                  {goWords(outcome, of)}
                </Button>
              </>
            ) : (
              <Button onClick={() => router.push(of.home.path as Route)}>{of.home.words}</Button>
            )}
          </div>
        </>
      ) : null}
      {trouble ? <FieldError>{trouble}</FieldError> : null}
    </article>
  );
}
