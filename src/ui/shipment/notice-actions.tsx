'use client';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { Button } from '../kit/button';
import { usePress } from '../kit/press';
import { MailDayMenu } from './mail-day-menu';

/** What can be done about notices that are not out: for one parcel or for many. */
export function NoticeActions({
  ids,
  notice,
  mailOn,
  today,
}: {
  ids: readonly string[];
  notice: 'on-day' | 'first-scan' | 'held' | 'several';
  mailOn: string;
  today: CalendarDate;
}) {
  const { busy, pressed } = usePress();
  const deed = (what: 'hold' | 'send' | 'first-scan', done: string) => () =>
    void pressed('/api/parcels/notices', { ids, deed: what }, done);
  const whom = ids.length === 1 ? 'The customer is' : 'Customers are';
  return (
    <p className="flex flex-wrap gap-x-4 gap-y-1.5 pt-2">
      {notice === 'held' ? null : (
        <Button look="link" disabled={busy} onClick={deed('hold', 'Held back: told by hand only')}>
          Hold back
        </Button>
      )}
      <MailDayMenu
        on={mailOn}
        today={today}
        align="end"
        onDay={(day) =>
          void pressed(
            '/api/parcels/notices',
            { ids, deed: 'move', mailOn: day },
            'The mailing date is moved, and the notice with it',
          )
        }
      >
        <button type="button" className="link" disabled={busy}>
          {notice === 'held' ? 'Tell on a day' : 'Change the date'}
        </button>
      </MailDayMenu>
      {notice === 'first-scan' ? null : (
        <Button look="link" disabled={busy} onClick={deed('first-scan', `${whom} told with the first scan`)}>
          With the first scan
        </Button>
      )}
      <Button look="link" disabled={busy} onClick={deed('send', `${whom} told within a minute`)}>
        Send now
      </Button>
    </p>
  );
}
