'use client';
import { useState } from 'react';
import { isDayOrNone } from '@/core/paper/paper';
import { CHARGE_STATE_WORDS, CHARGE_STATES } from '@/core/plan/state';
import { Check } from '../kit/check';
import { DateInput } from '../kit/date-field';
import { Segment } from '../kit/segment';
import { Select } from '../kit/select';
import type { UpcomingAsked } from './upcoming-address';

/** What of the charges is asked for, and how it is shown. */
export function UpcomingFilter({ asked, go }: { asked: UpcomingAsked; go: (part: Partial<UpcomingAsked>) => void }) {
  const [words, setWords] = useState(asked.words);
  // Words that are typed and not sent yet are asked for with whatever else is changed.
  const ask = (part: Partial<UpcomingAsked>) => go({ words, ...part });
  return (
    <form
      className="flex flex-wrap items-end gap-3 border-t border-ink py-3"
      onSubmit={(event) => {
        event.preventDefault();
        go({ words });
      }}
    >
      <input
        type="search"
        aria-label="Customer, plan or last four digits"
        placeholder="Customer, plan or last four digits"
        className="input !w-[270px]"
        value={words}
        onChange={(event) => setWords(event.target.value)}
      />
      <Select
        aria-label="State"
        className="!w-[140px]"
        value={asked.state}
        onChange={(event) => ask({ state: event.target.value })}
      >
        <option value="">Any state</option>
        {CHARGE_STATES.map((state) => (
          <option key={state} value={state}>
            {CHARGE_STATE_WORDS[state]}
          </option>
        ))}
      </Select>
      <DateInput
        aria-label="From"
        className="input !w-[150px]"
        value={asked.from}
        onDay={(day) => isDayOrNone(day) && ask({ from: day })}
      />
      <DateInput
        aria-label="To"
        className="input !w-[150px]"
        value={asked.to}
        onDay={(day) => isDayOrNone(day) && ask({ to: day })}
      />
      <label className="flex min-h-9 items-center gap-2">
        <Check checked={asked.notCarried} onChange={(event) => ask({ notCarried: event.target.checked })} />
        Not yet carried over
      </label>
      <span className="ml-auto">
        <Segment
          label="Shown as"
          value={asked.as}
          choices={[
            ['list', 'List'],
            ['calendar', 'Calendar'],
          ]}
          onChoose={(as) => ask({ as })}
        />
      </span>
    </form>
  );
}
