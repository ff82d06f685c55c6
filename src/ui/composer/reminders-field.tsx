'use client';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { reminderDays, reminderWords } from '@/core/invoice/reminders';
import { Button } from '../kit/button';

const OFFERED = [-3, 0, 7, 14, 30];
const OFFERED_AT_ONCE = 3;

/** On which days it is reminded of, by days from the due date. @param reminders null for as the business usually does */
export function RemindersField({
  reminders,
  usual,
  dueOn,
  today,
  locale,
  onChange,
}: {
  reminders: readonly number[] | null;
  usual: readonly number[];
  dueOn: CalendarDate | null;
  today: CalendarDate;
  locale: string;
  onChange: (reminders: number[] | null) => void;
}) {
  const offsets = reminders ?? usual;
  const days = dueOn ? reminderDays(offsets, dueOn, today) : [];
  return (
    <fieldset>
      <legend className="label mb-1">Reminders</legend>
      <ul className="grid gap-0.5">
        {days.map(({ offset, on }) => (
          <li key={offset} className="flex items-baseline gap-2">
            <span className="flex-1">
              {shortDate(on, locale, { weekday: true })} <span className="text-soft">{reminderWords(offset)}</span>
            </span>
            <Button
              look="small-link"
              aria-label={`No reminder ${reminderWords(offset)}`}
              onClick={() => onChange(offsets.filter((one) => one !== offset))}
            >
              Leave out
            </Button>
          </li>
        ))}
        {days.length === 0 ? <li className="text-soft">none</li> : null}
      </ul>
      <p className="mt-1 flex flex-wrap gap-x-3">
        {OFFERED.filter((offset) => !offsets.includes(offset))
          .slice(0, OFFERED_AT_ONCE)
          .map((offset) => (
            <Button
              key={offset}
              look="small-link"
              className="!text-soft"
              onClick={() => onChange([...offsets, offset].sort((a, b) => a - b))}
            >
              {reminderWords(offset)}
            </Button>
          ))}
        {reminders === null ? null : (
          <Button look="small-link" onClick={() => onChange(null)}>
            As usual
          </Button>
        )}
      </p>
    </fieldset>
  );
}
