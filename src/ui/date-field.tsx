'use client';
import { CalendarDays } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useId, useState } from 'react';
import { type CalendarDate, isCalendarDate } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { Calendar } from './calendar';

/** A day, chosen from a month. */
export function DateField({
  label,
  value,
  from,
  locale,
  onChoose,
}: {
  label: string;
  value: string;
  from: CalendarDate;
  locale: string;
  onChoose: (on: CalendarDate) => void;
}) {
  const id = useId();
  const [open, setOpen] = useState(false);
  return (
    <div>
      <span id={id} className="label mb-1">
        {label}
      </span>
      <Popover.Root open={open} onOpenChange={setOpen}>
        <Popover.Trigger className="input flex items-center justify-between text-left" aria-labelledby={id}>
          {isCalendarDate(value) ? shortDate(value, locale, { weekday: true, year: true }) : 'Choose a day'}
          <CalendarDays size={16} strokeWidth={1.5} aria-hidden="true" />
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content className="menu p-2" align="start" sideOffset={4} aria-label={label}>
            <Calendar
              chosen={value}
              from={from}
              onChoose={(on) => {
                onChoose(on);
                setOpen(false);
              }}
            />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </div>
  );
}
