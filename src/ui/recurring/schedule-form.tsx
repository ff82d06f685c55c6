'use client';
import { type CalendarDate, isCalendarDate } from '@/core/dates/calendar-date';
import { longDate, shortDate } from '@/core/dates/date-text';
import { comingDates, everyWords, type Pauses } from '@/core/invoice/recurring';
import { RuleError } from '@/core/rule-error';
import type { Schedule, ScheduledDate } from '@/core/schedule/schedule';
import { DayField } from '../day-input';
import { Field, FieldError, SelectField } from '../field';

const SHOWN = 12;

/** A schedule while it is chosen: everything as typed. */
export type ScheduleTyped = {
  readonly unit: Schedule['unit'];
  readonly every: string;
  readonly start: string;
  readonly lastDay: boolean;
  readonly ends: 'never' | 'on' | 'after';
  readonly endsOn: string;
  readonly endsAfter: string;
  readonly shift: NonNullable<Schedule['shift']>;
};

export const typedSchedule = (schedule: Schedule): ScheduleTyped => ({
  unit: schedule.unit,
  every: String(schedule.every),
  start: schedule.start,
  lastDay: schedule.monthDays?.includes('last') ?? false,
  ends: schedule.ends === 'never' ? 'never' : 'on' in schedule.ends ? 'on' : 'after',
  endsOn: typeof schedule.ends === 'object' && 'on' in schedule.ends ? schedule.ends.on : '',
  endsAfter: typeof schedule.ends === 'object' && 'after' in schedule.ends ? String(schedule.ends.after) : '12',
  shift: schedule.shift ?? 'none',
});

/** What is typed as a schedule, or what to do about it. */
export function readSchedule(typed: ScheduleTyped): { schedule: Schedule } | { trouble: string } {
  const every = Number(typed.every);
  if (!Number.isInteger(every) || every < 1 || every > 366) return { trouble: 'Write how often as a whole number.' };
  if (!isCalendarDate(typed.start)) return { trouble: 'Choose the first day.' };
  const after = Number(typed.endsAfter);
  if (typed.ends === 'on' && !isCalendarDate(typed.endsOn)) return { trouble: 'Choose the last day.' };
  if (typed.ends === 'after' && (!Number.isInteger(after) || after < 1))
    return { trouble: 'Write how many there are.' };
  return {
    schedule: {
      unit: typed.unit,
      every,
      start: typed.start,
      ...(typed.unit === 'month' && typed.lastDay ? { monthDays: ['last' as const] } : {}),
      ends: typed.ends === 'never' ? 'never' : typed.ends === 'on' ? { on: typed.endsOn as CalendarDate } : { after },
      shift: typed.shift,
    },
  };
}

/** The dates that a schedule gives, or why it gives none. */
export function previewDates(
  schedule: Schedule,
  pauses: Pauses = [],
): { dates: readonly ScheduledDate[]; trouble: string } {
  try {
    const dates = comingDates(schedule, pauses, null, SHOWN);
    return { dates, trouble: dates.length === 0 ? 'This schedule has no date. Change its start or its end.' : '' };
  } catch (error) {
    if (!(error instanceof RuleError)) throw error;
    return { dates: [], trouble: 'This schedule has no date. Change its start or its end.' };
  }
}

/** A date of the list; one that was moved says from where. */
export function DateLine({ date, locale }: { date: ScheduledDate; locale: string }) {
  return (
    <>
      {shortDate(date.charged, locale, { weekday: true, year: true })}
      {date.charged === date.nominal ? null : (
        <span className="small ml-2 text-dusk">moved from {shortDate(date.nominal, locale, { weekday: true })}</span>
      )}
    </>
  );
}

/** How often, from when, until when, and what happens on weekends; the coming dates are listed beside it. */
export function ScheduleForm({
  typed,
  locale,
  onChange,
}: {
  typed: ScheduleTyped;
  locale: string;
  onChange: (part: Partial<ScheduleTyped>) => void;
}) {
  const read = readSchedule(typed);
  const preview = 'schedule' in read ? previewDates(read.schedule) : { dates: [], trouble: read.trouble };
  return (
    <div className="grid gap-6 sm:grid-cols-[1fr_260px]">
      <div className="grid content-start gap-4">
        <div className="flex flex-wrap items-end gap-3">
          <Field
            label="Every"
            className="w-20"
            inputMode="numeric"
            value={typed.every}
            onChange={(event) => onChange({ every: event.target.value })}
          />
          <SelectField
            label="Unit"
            value={typed.unit}
            onChange={(event) => onChange({ unit: event.target.value as Schedule['unit'] })}
          >
            <option value="week">weeks</option>
            <option value="month">months</option>
            <option value="year">years</option>
            <option value="day">days</option>
          </SelectField>
          <DayField label="From" className="w-44" value={typed.start} onDay={(day) => onChange({ start: day })} />
        </div>
        {typed.unit === 'month' ? (
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              className="size-4 accent-plum"
              checked={typed.lastDay}
              onChange={(event) => onChange({ lastDay: event.target.checked })}
            />
            Always on the last day of the month
          </label>
        ) : null}
        <div className="flex flex-wrap items-end gap-3">
          <SelectField
            label="Ends"
            value={typed.ends}
            onChange={(event) => onChange({ ends: event.target.value as ScheduleTyped['ends'] })}
          >
            <option value="never">never</option>
            <option value="on">on a day</option>
            <option value="after">after so many</option>
          </SelectField>
          {typed.ends === 'on' ? (
            <DayField
              label="Last day"
              className="w-44"
              value={typed.endsOn}
              onDay={(day) => onChange({ endsOn: day })}
            />
          ) : null}
          {typed.ends === 'after' ? (
            <Field
              label="How many"
              className="w-24"
              value={typed.endsAfter}
              onChange={(event) => onChange({ endsAfter: event.target.value })}
            />
          ) : null}
        </div>
        <SelectField
          label="When it falls on a weekend"
          value={typed.shift}
          onChange={(event) => onChange({ shift: event.target.value as ScheduleTyped['shift'] })}
        >
          <option value="none">it stays</option>
          <option value="next">the next working day</option>
          <option value="previous">the working day before</option>
          <option value="skip">it is left out</option>
        </SelectField>
      </div>
      <div>
        <h2 className="title-section border-b border-ink pb-1">Comes on</h2>
        {preview.trouble ? (
          <FieldError>{preview.trouble}</FieldError>
        ) : (
          <ol aria-label="Coming dates">
            {preview.dates.map((date) => (
              <li key={date.nominal} className="border-b border-rule py-1">
                <DateLine date={date} locale={locale} />
              </li>
            ))}
          </ol>
        )}
        {'schedule' in read && preview.dates[0] ? (
          <p className="small mt-2 text-soft">
            {everyWords(read.schedule)}
            {read.schedule.ends === 'never' ? ', without an end' : ''}, first on{' '}
            {longDate(preview.dates[0].charged, locale)}
          </p>
        ) : null}
      </div>
    </div>
  );
}
