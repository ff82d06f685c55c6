import { longDate, shortDate } from '@/core/dates/date-text';
import { comingDates, everyWords } from '@/core/invoice/recurring';
import { RuleError } from '@/core/rule-error';
import type { Schedule, ScheduledDate } from '@/core/schedule/schedule';
import { readSchedule, type TypedSchedule } from '@/core/schedule/typed';
import { FieldError } from '../kit/field';

const SHOWN = 12;

/** The dates that a schedule gives, or why it gives none. */
function previewDates(schedule: Schedule): { dates: readonly ScheduledDate[]; trouble: string } {
  try {
    const dates = comingDates(schedule, [], null, SHOWN);
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

/** The dates that what is typed comes to, in a list. */
export function ComingDates({ typed, locale }: { typed: TypedSchedule; locale: string }) {
  const read = readSchedule(typed);
  const preview = 'schedule' in read ? previewDates(read.schedule) : { dates: [], trouble: read.trouble };
  return (
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
  );
}
