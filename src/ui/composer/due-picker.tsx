'use client';
import { ChevronDown } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { dueDate } from '@/core/invoice/due';
import type { DueChoice } from '@/core/paper/paper';
import { Calendar } from '../kit/calendar';

const DAYS = [7, 14, 30];

/** What the choice means in words, under the date. */
function meaning(due: DueChoice): string {
  if (due.kind === 'receipt') return 'on receipt';
  if (due.kind === 'days') return due.days === 1 ? '1 day after sending' : `${due.days} days after sending`;
  if (due.kind === 'month-end') return 'the end of the month in which it is sent';
  return 'a fixed date';
}

/** "When": on receipt, in so many days, or on a date. */
export function DuePicker({
  due,
  today,
  locale,
  invalid,
  onChoose,
}: {
  due: DueChoice;
  today: CalendarDate;
  locale: string;
  invalid: boolean;
  onChoose: (due: DueChoice) => void;
}) {
  const [open, setOpen] = useState(false);
  const on = dueDate(due, today);
  const choose = (choice: DueChoice) => {
    onChoose(choice);
    setOpen(false);
  };
  const state = (is: boolean) => ({ 'data-state': is ? 'on' : 'off', 'aria-pressed': is });
  return (
    <>
      <Popover.Root open={open} onOpenChange={setOpen}>
        <Popover.Trigger
          data-field="due"
          aria-invalid={invalid || undefined}
          aria-label={`When: ${on ? shortDate(on, locale, { weekday: true, year: true }) : 'no date yet'}, ${meaning(due)}`}
          className="blank flex items-center justify-between gap-2 text-left !text-[17px]/[27px]"
        >
          <span className="truncate">{on ? shortDate(on, locale, { weekday: true, year: true }) : 'Choose a day'}</span>
          <ChevronDown size={15} strokeWidth={1.6} className="flex-none" aria-hidden="true" />
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content className="menu p-3" align="start" sideOffset={4} aria-label="When it is due">
            <div className="segment w-full">
              <button
                type="button"
                className="flex-1 whitespace-nowrap"
                {...state(due.kind === 'receipt')}
                onClick={() => choose({ kind: 'receipt' })}
              >
                On receipt
              </button>
              {DAYS.map((days) => (
                <button
                  key={days}
                  type="button"
                  className="flex-1 whitespace-nowrap"
                  {...state(due.kind === 'days' && due.days === days)}
                  onClick={() => choose({ kind: 'days', days })}
                >
                  In {days} days
                </button>
              ))}
              <button
                type="button"
                className="flex-1 whitespace-nowrap"
                {...state(due.kind === 'month-end')}
                onClick={() => choose({ kind: 'month-end' })}
              >
                End of month
              </button>
            </div>
            <div className="mt-3 flex justify-center border-t border-rule pt-2">
              <Calendar
                chosen={on ?? addDays(today, 14)}
                from={today}
                onChoose={(date) => choose({ kind: 'date', date })}
              />
            </div>
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
      <p className="small mt-1 text-soft">{meaning(due)}</p>
    </>
  );
}
