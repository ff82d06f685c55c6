'use client';
import type { Schedule } from '@/core/schedule/schedule';
import type { TypedSchedule } from '@/core/schedule/typed';
import { DateField } from '../kit/date-field';
import { Field } from '../kit/field';
import { Segment } from '../kit/segment';
import { SelectField } from '../kit/select';

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/** How often, from when, until when, and what happens on weekends and days off. */
export function ScheduleFields({
  typed,
  troubles,
  mustEnd = false,
  hasHolidays = false,
  onChange,
}: {
  typed: TypedSchedule;
  /** What is wrong, by field. */
  troubles: Readonly<Partial<Record<string, string>>>;
  /** For mustEnd of a balance: it cannot go on for ever. */
  mustEnd?: boolean;
  /** Whether the business has days off of its own. */
  hasHolidays?: boolean;
  onChange: (part: Partial<TypedSchedule>) => void;
}) {
  return (
    <div className="grid content-start gap-3.5">
      <div className="flex flex-wrap items-end gap-2.5">
        <Field
          label="Every"
          className="w-[62px]"
          inputMode="numeric"
          value={typed.every}
          error={troubles.every}
          onChange={(event) => onChange({ every: event.target.value })}
        />
        <SelectField
          label="Unit"
          value={typed.unit}
          onChange={(event) => onChange({ unit: event.target.value as Schedule['unit'] })}
        >
          <option value="day">days</option>
          <option value="week">weeks</option>
          <option value="month">months</option>
          <option value="year">years</option>
        </SelectField>
        <DateField
          label="From"
          className="w-[152px]"
          value={typed.start}
          error={troubles.start}
          onDay={(day) => onChange({ start: day })}
        />
      </div>
      {typed.unit === 'month' ? (
        <Field
          label="On these days of the month"
          placeholder="the first day’s own"
          hint="Such as 1, 15 or last."
          value={typed.monthDays}
          error={troubles.monthDays}
          onChange={(event) => onChange({ monthDays: event.target.value })}
        />
      ) : null}
      {typed.unit === 'week' ? (
        <fieldset>
          <legend className="label mb-1">On these weekdays</legend>
          <div className="segment">
            {DAYS.map((name, at) => {
              const on = typed.weekdays.includes(at + 1);
              return (
                <button
                  key={name}
                  type="button"
                  className="!px-2"
                  data-state={on ? 'on' : 'off'}
                  aria-pressed={on}
                  onClick={() =>
                    onChange({
                      weekdays: on
                        ? typed.weekdays.filter((day) => day !== at + 1)
                        : [...typed.weekdays, at + 1].sort(),
                    })
                  }
                >
                  {name}
                </button>
              );
            })}
          </div>
        </fieldset>
      ) : null}
      <div className="flex flex-wrap items-end gap-2.5">
        <SelectField
          label="Ends"
          value={mustEnd && typed.ends === 'never' ? 'after' : typed.ends}
          onChange={(event) => onChange({ ends: event.target.value as TypedSchedule['ends'] })}
        >
          {mustEnd ? null : <option value="never">never</option>}
          <option value="after">after so many</option>
          <option value="on">on a day</option>
        </SelectField>
        {typed.ends === 'on' ? (
          <DateField
            label="Last day"
            className="w-[152px]"
            value={typed.endsOn}
            error={troubles.endsOn}
            onDay={(day) => onChange({ endsOn: day })}
          />
        ) : typed.ends === 'after' || mustEnd ? (
          <Field
            label={mustEnd ? 'Payments' : 'How many'}
            className="w-[88px]"
            inputMode="numeric"
            value={typed.count}
            error={troubles.count}
            onChange={(event) => onChange({ count: event.target.value })}
          />
        ) : null}
      </div>
      <Segment
        label={hasHolidays ? 'On a weekend or day off' : 'On a weekend'}
        value={typed.shift}
        choices={[
          ['none', 'Same day'],
          ['previous', 'Day before'],
          ['next', 'Day after'],
          ['skip', 'Left out'],
        ]}
        onChoose={(shift) => onChange({ shift })}
      />
    </div>
  );
}
