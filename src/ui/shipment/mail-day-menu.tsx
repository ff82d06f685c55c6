'use client';
import { Popover } from 'radix-ui';
import { type ReactElement, useState } from 'react';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { Calendar } from '../kit/calendar';

/** Chooses a day, from today on: a mailing date unless `label` says otherwise; `children` is the button that opens it. */
export function MailDayMenu({
  on,
  today,
  align,
  label = 'Mailing date',
  onDay,
  children,
}: {
  on: string;
  today: CalendarDate;
  align: 'start' | 'end';
  label?: string;
  onDay: (day: string) => void;
  children: ReactElement;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild>{children}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align={align} sideOffset={4} collisionPadding={12} className="menu p-2" aria-label={label}>
          <Calendar
            chosen={on}
            from={today}
            onChoose={(day) => {
              setOpen(false);
              onDay(day);
            }}
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
