'use client';
import { DayPicker } from 'react-day-picker';
import { type CalendarDate, isCalendarDate } from '@/core/dates/calendar-date';

const asDate = (on: CalendarDate): Date => new Date(`${on}T12:00:00Z`);

/** A month to choose a day from, by mouse or arrow keys. Days before `from` cannot be chosen. */
export function Calendar({
  chosen,
  from,
  onChoose,
}: {
  chosen: string;
  from: CalendarDate;
  onChoose: (on: CalendarDate) => void;
}) {
  const selected = isCalendarDate(chosen) ? asDate(chosen) : undefined;
  return (
    <DayPicker
      mode="single"
      timeZone="UTC"
      weekStartsOn={1}
      {...(selected ? { selected } : {})}
      defaultMonth={selected ?? asDate(from)}
      disabled={{ before: asDate(from) }}
      onSelect={(day) => day && onChoose(day.toISOString().slice(0, 10) as CalendarDate)}
      classNames={{
        months: 'relative',
        month_caption: 'font-serif text-[15px] font-semibold h-8 flex items-center px-2',
        nav: 'absolute right-0 top-0 flex',
        button_previous: 'size-8 grid place-items-center hover:bg-petal rounded-control',
        button_next: 'size-8 grid place-items-center hover:bg-petal rounded-control',
        chevron: 'fill-ink size-4',
        weekday: 'text-[11px] font-medium text-soft size-8',
        day: 'p-0 text-center text-[13px]',
        day_button:
          'size-8 rounded-control hover:bg-petal disabled:text-soft disabled:opacity-60 disabled:hover:bg-transparent',
        selected: '[&>button]:bg-petal [&>button]:shadow-[inset_0_0_0_1.5px_var(--plum)] [&>button]:font-semibold',
        today: '[&>button]:font-bold [&>button]:text-plum',
        outside: 'opacity-40',
      }}
    />
  );
}
