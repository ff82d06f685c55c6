'use client';
import { CalendarDays } from 'lucide-react';
import { Popover } from 'radix-ui';
import { type InputHTMLAttributes, useState } from 'react';
import { type CalendarDate, isCalendarDate } from '@/core/dates/calendar-date';
import { dayFigures, dayPattern, typedDay } from '@/core/dates/typed-day';
import { useDeskLocale } from './at-desk';
import { Calendar } from './calendar';
import { Labelled } from './field';

const FIRST = '1900-01-01' as CalendarDate;

type Given = Omit<InputHTMLAttributes<HTMLInputElement>, 'value' | 'type' | 'min'> & {
  /** `2026-04-03`, empty, or what was typed and is no day. */
  value: string;
  onDay: (value: string) => void;
  /** Days before it cannot be chosen in the calendar. */
  from?: CalendarDate;
};

/** A day, typed in figures in the business's own order or chosen from a calendar. What is typed is never lost. */
export function DateInput({
  value,
  onDay,
  from = FIRST,
  className = 'input',
  disabled,
  onChange: _untyped,
  ...more
}: Given) {
  const locale = useDeskLocale();
  const [typed, setTyped] = useState<string | null>(null);
  const [choosing, setChoosing] = useState(false);
  // While somebody types, their own figures stay; otherwise the day is shown as the business writes it.
  const shown = typed ?? dayFigures(value, locale);
  return (
    <span className={`relative inline-flex items-center ${/\bw-|!w-/.test(className) ? '' : 'w-full'}`}>
      <input
        {...more}
        className={`${className} !pr-8`}
        inputMode="numeric"
        autoComplete="off"
        placeholder={dayPattern(locale)}
        disabled={disabled}
        value={shown}
        aria-invalid={
          more['aria-invalid'] ?? (typed === null && value !== '' && !isCalendarDate(value) ? true : undefined)
        }
        onChange={(event) => {
          setTyped(event.target.value);
          onDay(typedDay(event.target.value, locale) ?? event.target.value);
        }}
        onBlur={(event) => {
          // What nobody has taken over stays to be put right.
          if (typed === '' || typed === value || typedDay(typed ?? '', locale)) setTyped(null);
          more.onBlur?.(event);
        }}
      />
      <Popover.Root open={choosing} onOpenChange={setChoosing}>
        <Popover.Trigger
          type="button"
          aria-label="Choose from a calendar"
          disabled={disabled}
          tabIndex={-1}
          className="absolute right-1 grid size-7 place-items-center rounded-control text-soft hover:bg-petal hover:text-ink disabled:opacity-50"
        >
          <CalendarDays size={15} strokeWidth={1.5} aria-hidden="true" />
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content align="end" sideOffset={4} collisionPadding={12} className="menu p-2" aria-label="Calendar">
            <Calendar
              chosen={value}
              from={from}
              onChoose={(day) => {
                setTyped(null);
                onDay(day);
                setChoosing(false);
              }}
            />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </span>
  );
}

/** The same with its label, hint and error. */
export function DateField({
  label,
  error,
  hint,
  className,
  ...given
}: Given & { label: string; error?: string | undefined; hint?: string | undefined }) {
  return (
    <Labelled label={label} error={error} hint={hint} className={className}>
      {(tied) => <DateInput {...given} {...tied} />}
    </Labelled>
  );
}
