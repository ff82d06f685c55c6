import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { eventWords, type TimelineLine } from '@/core/timeline/timeline';

/** Long addresses may break before their sign, and not in the middle of a word. */
const breakable = (text: string) =>
  text.split(/(?=@)/).map((part, at) => (
    <span key={at}>
      {at > 0 ? <wbr /> : null}
      {part}
    </span>
  ));

/** Who did what, when: what is still to come first, then the latest. @param coming what falls due, and on which day */
export function Timeline({
  lines,
  currency,
  locale,
  zone,
  today,
  coming = null,
}: {
  lines: readonly TimelineLine[];
  currency: string;
  locale: string;
  zone: string;
  today: ReturnType<typeof dateInZone>;
  coming?: ReturnType<typeof dateInZone> | null;
}) {
  return (
    <aside aria-label="Timeline" className="text-[12.5px]/[17px]">
      <h2 className="title-section h-[30px] border-b border-ink text-[16.5px]">Timeline</h2>
      <dl className="grid grid-cols-[62px_minmax(0,1fr)]">
        {coming ? (
          <>
            <dt className="border-b border-rule py-2 text-dusk">{shortDate(coming, locale)}</dt>
            <dd className="border-b border-rule py-2 text-dusk">Falls due</dd>
          </>
        ) : null}
        {lines.map(({ at, byName, event }, index) => {
          const on = dateInZone(at, zone);
          const { lead, rest, note } = eventWords(event, byName, { currency, locale, zone });
          const bad = event.kind === 'refused' || event.kind === 'mail-failed';
          return (
            <div key={index} className="contents">
              <dt className={`border-b border-rule py-2 ${on === today ? 'font-semibold text-plum' : 'text-soft'}`}>
                {on === today ? 'Today' : shortDate(on, locale)}
                <span className="block font-normal text-soft">{clockTime(at, zone)}</span>
              </dt>
              <dd className="min-w-0 border-b border-rule py-2">
                <span className={`private font-semibold ${bad ? 'text-brick' : ''}`}>{lead}</span>
                {rest ? <span className="private"> {rest}</span> : null}
                {note ? <span className="private block break-words text-soft">{breakable(note)}</span> : null}
              </dd>
            </div>
          );
        })}
      </dl>
    </aside>
  );
}
