'use client';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { useDeskLocale } from '../kit/at-desk';
import { Button } from '../kit/button';
import { usePress } from '../kit/press';
import { MailDayMenu } from './mail-day-menu';

/** What waits to be handed over: the list that goes with it, and when the carrier comes for it. */
export function PickUpPart({
  words,
  pickUps,
  today,
  mayPack,
}: {
  /** How much it is, in words. */
  words: string;
  pickUps: readonly { readonly id: string; readonly on: CalendarDate; readonly number: string }[];
  today: CalendarDate;
  mayPack: boolean;
}) {
  const locale = useDeskLocale();
  const { busy, pressed } = usePress({ keyed: true });
  return (
    <div className="py-3">
      <p className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <span className="document min-w-0 flex-1">{words}</span>
        <a className="link" href="/api/parcels/handed-over" target="_blank" rel="noreferrer">
          List to hand over
        </a>
        {mayPack ? (
          <MailDayMenu
            on={today}
            today={today}
            align="end"
            label="Day of the pick-up"
            onDay={(on) => void pressed('/api/parcels/pick-up', { on }, 'The carrier comes')}
          >
            <Button disabled={busy}>Order a pick-up</Button>
          </MailDayMenu>
        ) : null}
      </p>
      {pickUps.map(({ id, on, number }) => (
        <p key={id} className="small text-soft">
          {number
            ? `The carrier comes ${shortDate(on, locale, { weekday: true })}, order ${number}.`
            : `Asked to come ${shortDate(on, locale, { weekday: true })}; not confirmed yet.`}
        </p>
      ))}
    </div>
  );
}
