'use client';
import { FileText, X } from 'lucide-react';
import { useState } from 'react';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { reminderDays, reminderWords } from '@/core/invoice/reminders';
import { MOST_FILES, type Paper, type PaperFile } from '@/core/paper/paper';
import { FieldError, TickField } from '../field';
import { FileDrop } from '../import/file-drop';
import type { Answer } from '../send';
import type { ShownProblems } from './problems';

export type TermsChoice = { readonly id: string; readonly name: string; readonly version: number };

/** Sends a file up; what it is, is told by its content. */
export async function upload(
  file: File,
  purpose: 'attachment' | 'logo' | 'picture' | 'document' | 'seal',
): Promise<Answer<PaperFile>> {
  try {
    const response = await fetch(`/api/files?purpose=${purpose}&name=${encodeURIComponent(file.name)}`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: file,
    });
    return (await response.json()) as Answer<PaperFile>;
  } catch {
    return { ok: false, code: 'unreachable', words: 'No connection. Choose the file again in a moment.', fields: [] };
  }
}

const sizeWords = (bytes: number): string =>
  bytes < 1_000_000 ? `${Math.max(1, Math.round(bytes / 1000))} KB` : `${(bytes / 1_000_000).toFixed(1)} MB`;

/** What goes with the invoice: how it may be paid, its terms, files, reminders, and a memo that stays here. */
export function PaperAfter({
  paper,
  problems,
  terms,
  usualReminders,
  dueOn,
  today,
  locale,
  hasAccount,
  onChange,
}: {
  paper: Paper;
  problems: ShownProblems;
  terms: readonly TermsChoice[];
  usualReminders: readonly number[];
  dueOn: CalendarDate | null;
  today: CalendarDate;
  locale: string;
  hasAccount: boolean;
  onChange: (part: Partial<Paper>) => void;
}) {
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const { ways } = paper;
  const setWays = (part: Partial<Paper['ways']>) => onChange({ ways: { ...ways, ...part } });
  const offsets = paper.reminders ?? usualReminders;
  const days = dueOn ? reminderDays(offsets, dueOn, today) : [];

  async function add(file: File) {
    setTrouble('');
    setBusy(true);
    const answer = await upload(file, 'attachment');
    setBusy(false);
    if (!answer.ok) return setTrouble(answer.words);
    onChange({ files: [...paper.files, { ...answer.value, approve: false }] });
  }

  return (
    <div className="grid gap-x-8 gap-y-6 border-t border-rule pt-4 sm:grid-cols-2 sm:pl-[34px]">
      <fieldset className="grid content-start gap-2" data-field="ways" tabIndex={-1}>
        <legend className="label mb-1">Ways to pay</legend>
        <TickField label="By card" checked={ways.card} onChange={(event) => setWays({ card: event.target.checked })} />
        <TickField
          label="By bank transfer"
          {...(hasAccount ? {} : { hint: 'Your account is not in the profile yet.' })}
          checked={ways.transfer}
          onChange={(event) => setWays({ transfer: event.target.checked })}
        />
        <TickField
          label="In parts"
          checked={ways.parts}
          onChange={(event) => setWays({ parts: event.target.checked })}
        />
        {ways.parts ? (
          <label className="flex items-baseline gap-2 pl-[26px] text-soft">
            First at least
            <input
              data-field="first"
              aria-label="Least first payment, as 30% or an amount"
              className="blank !w-24 !text-[14px]/5"
              placeholder="30% or 100"
              value={ways.first}
              onChange={(event) => setWays({ first: event.target.value })}
            />
          </label>
        ) : null}
        <TickField
          label="Ask for a tip"
          checked={ways.tip !== null}
          onChange={(event) => setWays({ tip: event.target.checked ? ['5', '10', '15'] : null })}
        />
        {ways.tip ? (
          <label className="flex items-baseline gap-2 pl-[26px] text-soft">
            Suggested percents
            <input
              className="blank !w-28 !text-[14px]/5"
              defaultValue={ways.tip.join(', ')}
              onChange={(event) =>
                setWays({
                  tip: event.target.value
                    .split(/[\s,;]+/)
                    .filter((part) => /^(100|[1-9]?[0-9])$/.test(part))
                    .slice(0, 4),
                })
              }
            />
          </label>
        ) : null}
        {['ways', 'first'].map((field) =>
          problems.of(field) ? <FieldError key={field}>{problems.of(field)}</FieldError> : null,
        )}
      </fieldset>

      <div className="grid content-start gap-4">
        <div>
          <label className="label mb-1" htmlFor="terms">
            Terms and conditions
          </label>
          <select
            id="terms"
            className="input"
            value={paper.termsId ?? ''}
            onChange={(event) => onChange({ termsId: event.target.value || null })}
          >
            <option value="">none</option>
            {terms.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}, version {one.version}
              </option>
            ))}
          </select>
        </div>
        <fieldset>
          <legend className="label mb-1">Reminders</legend>
          <ul className="grid gap-0.5">
            {days.map(({ offset, on }) => (
              <li key={offset} className="flex items-baseline gap-2">
                <span className="flex-1">
                  {shortDate(on, locale, { weekday: true })} <span className="text-soft">{reminderWords(offset)}</span>
                </span>
                <button
                  type="button"
                  className="link link-small"
                  aria-label={`No reminder ${reminderWords(offset)}`}
                  onClick={() => onChange({ reminders: offsets.filter((one) => one !== offset) })}
                >
                  Leave out
                </button>
              </li>
            ))}
            {days.length === 0 ? <li className="text-soft">none</li> : null}
          </ul>
          <p className="mt-1 flex flex-wrap gap-x-3">
            {[-3, 0, 7, 14, 30]
              .filter((offset) => !offsets.includes(offset))
              .slice(0, 3)
              .map((offset) => (
                <button
                  key={offset}
                  type="button"
                  className="link link-small !text-soft"
                  onClick={() => onChange({ reminders: [...offsets, offset].sort((a, b) => a - b) })}
                >
                  {reminderWords(offset)}
                </button>
              ))}
            {paper.reminders === null ? null : (
              <button type="button" className="link link-small" onClick={() => onChange({ reminders: null })}>
                As usual
              </button>
            )}
          </p>
        </fieldset>
      </div>

      <div>
        <span className="label mb-1">Files</span>
        <ul className="grid gap-1.5">
          {paper.files.map((file) => (
            <li key={file.id} className="flex flex-wrap items-center gap-x-2 border-b border-rule pb-1">
              <FileText size={15} strokeWidth={1.5} aria-hidden="true" />
              <a
                className="min-w-0 flex-1 truncate hover:underline"
                href={`/files/own/${file.id}`}
                target="_blank"
                rel="noreferrer"
              >
                {file.name}
              </a>
              <span className="small text-soft">{sizeWords(file.size)}</span>
              <label className="small flex items-center gap-1">
                <input
                  type="checkbox"
                  className="accent-plum"
                  checked={file.approve}
                  onChange={(event) =>
                    onChange({
                      files: paper.files.map((one) =>
                        one.id === file.id ? { ...one, approve: event.target.checked } : one,
                      ),
                    })
                  }
                />
                to be approved
              </label>
              <button
                type="button"
                className="grid size-6 place-items-center"
                aria-label={`Without ${file.name}`}
                onClick={() => onChange({ files: paper.files.filter(({ id }) => id !== file.id) })}
              >
                <X size={13} strokeWidth={1.6} aria-hidden="true" />
              </button>
            </li>
          ))}
        </ul>
        {paper.files.length < MOST_FILES ? (
          <div className="mt-2">
            <FileDrop
              label={busy ? 'Sending it up' : 'Add a file'}
              accept=".pdf,.png,.jpg,.jpeg,.gif,.webp,.tif,.tiff,.docx,.xlsx,.csv"
              hint={`up to 10 MB each, ${MOST_FILES} in all`}
              onFile={add}
            />
          </div>
        ) : null}
        {trouble ? <FieldError>{trouble}</FieldError> : null}
      </div>

      <div>
        <label className="label" htmlFor="memo">
          Private memo
        </label>
        <textarea
          id="memo"
          rows={3}
          maxLength={4000}
          placeholder="only seen here"
          className="input py-2 [field-sizing:content]"
          value={paper.memo}
          onChange={(event) => onChange({ memo: event.target.value })}
        />
      </div>
    </div>
  );
}
