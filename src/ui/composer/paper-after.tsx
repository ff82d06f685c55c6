'use client';
import type { CalendarDate } from '@/core/dates/calendar-date';
import type { Paper } from '@/core/paper/paper';
import { Select } from '../kit/select';
import { PaperFiles } from './paper-files';
import type { ShownProblems } from './problems';
import { RemindersField } from './reminders-field';
import { WaysToPay } from './ways-to-pay';

export type TermsChoice = { readonly id: string; readonly name: string; readonly version: number };

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
  smallest,
  cardsOpen,
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
  smallest: string;
  cardsOpen: boolean;
  onChange: (part: Partial<Paper>) => void;
}) {
  return (
    <div className="grid gap-x-8 gap-y-6 border-t border-rule pt-4 sm:grid-cols-2 sm:pl-[34px]">
      <WaysToPay
        ways={paper.ways}
        problems={problems}
        hasAccount={hasAccount}
        smallest={smallest}
        cardsOpen={cardsOpen}
        onChange={(ways) => onChange({ ways })}
      />

      <div className="grid content-start gap-4">
        <div>
          <label className="label mb-1" htmlFor="terms">
            Terms and conditions
          </label>
          <Select
            id="terms"
            value={paper.termsId ?? ''}
            onChange={(event) => onChange({ termsId: event.target.value || null })}
          >
            <option value="">none</option>
            {terms.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}, version {one.version}
              </option>
            ))}
          </Select>
        </div>
        <RemindersField
          reminders={paper.reminders}
          usual={usualReminders}
          dueOn={dueOn}
          today={today}
          locale={locale}
          onChange={(reminders) => onChange({ reminders })}
        />
      </div>

      <PaperFiles files={paper.files} onChange={(files) => onChange({ files })} />

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
