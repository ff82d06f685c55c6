'use client';
import { Popover } from 'radix-ui';
import { type ReactElement, useState } from 'react';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { Calendar } from '../kit/calendar';

/** Chooses a mailing date, from today on; `children` is the button that opens it. */
export function MailDayMenu({
  on,
  today,
  align,
  onDay,
  children,
}: {
  on: string;
  today: CalendarDate;
  align: 'start' | 'end';
  onDay: (day: string) => void;
  children: ReactElement;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild>{children}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align={align}
          sideOffset={4}
          collisionPadding={12}
          className="menu p-2"
          aria-label="Mailing date"
        >
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
