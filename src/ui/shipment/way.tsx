import { addDays, weekday } from '@/core/dates/calendar-date';
import { clockTime, shortDate, weekdayName } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { STILL_DAYS } from '@/core/parcel/shipment';
import type { WayPicture } from '@/core/parcel/way';

const ROW = 34;
const NAMES = 132;
const WIDTH = 510;
const TOP = 34;

/** The way of a parcel as days across and places down; for who does not see it, a table. */
export function Way({ way, locale, zone }: { way: WayPicture; locale: string; zone: string }) {
  const { first, days, rows, scans, still, promised, late, now } = way;
  const across = (WIDTH - NAMES) / days;
  const x = (day: number) => NAMES + Math.min(day, days) * across;
  const y = (row: number) => TOP + row * ROW + ROW / 2;
  const height = TOP + rows.length * ROW + 4;
  const door = rows.length - 1;
  const all = Array.from({ length: days }, (_, at) => addDays(first, at));
  const path = scans.map(({ day, row }, at) => (at === 0 ? `M${x(day)} ${y(row)}` : `H${x(day)}V${y(row)}`)).join('');
  const lastAt = rows.find(({ isLast }) => isLast);
  const stillDays = still ? Math.floor(still.to - still.from.day) : 0;
  const today = Math.floor(now);
  return (
    <>
      <div className="hidden md:block">
        <svg aria-hidden="true" viewBox={`0 0 ${WIDTH} ${height}`} className="h-auto w-full font-sans text-[12px]">
          {all.map((day, at) => (
            <g key={day}>
              {weekday(day) >= 6 ? (
                <rect x={x(at)} y={TOP} width={across} height={rows.length * ROW} className="fill-rule opacity-45" />
              ) : null}
              {days <= 16 || at % 3 === 0 ? (
                <text
                  x={x(at) + across / 2}
                  y={12}
                  textAnchor="middle"
                  className={at === today ? 'fill-plum font-semibold' : 'fill-soft'}
                >
                  {days <= 14 ? weekdayName(weekday(day), locale).slice(0, 2) : ''}
                  <tspan x={x(at) + across / 2} dy={13}>
                    {Number(day.slice(8))}
                  </tspan>
                </text>
              ) : null}
            </g>
          ))}
          <line x1={NAMES} x2={WIDTH} y1={TOP} y2={TOP} className="stroke-ink" />
          {rows.map(({ place, isLast }, at) => (
            <g key={at}>
              <line x1={NAMES} x2={WIDTH} y1={y(at)} y2={y(at)} className="stroke-rule" />
              <text
                x={0}
                y={y(at) + 4}
                className={isLast ? 'fill-ink font-semibold' : at > scans.length - 1 ? 'fill-soft' : 'fill-ink'}
              >
                {place.length > 22 ? `${place.slice(0, 21)}…` : place}
              </text>
            </g>
          ))}
          {promised !== null && late > 0 ? (
            <>
              <defs>
                <pattern id="late" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
                  <line x1="0" y1="0" x2="0" y2="6" className="stroke-brick opacity-60" />
                </pattern>
              </defs>
              <rect
                x={x(promised)}
                y={y(door) - 7}
                width={Math.max(0, x(now) - x(promised))}
                height={14}
                fill="url(#late)"
              />
            </>
          ) : null}
          {promised !== null && rows[door]?.from === null ? (
            <>
              {still ? (
                <path
                  d={`M${x(still.from.day)} ${y(still.from.row)}H${x(promised)}V${y(door)}`}
                  className="fill-none stroke-dusk"
                  strokeDasharray="3 3"
                />
              ) : null}
              <rect
                x={x(promised) - 5}
                y={y(door) - 5}
                width={10}
                height={10}
                transform={`rotate(45 ${x(promised)} ${y(door)})`}
                className="fill-sheet stroke-dusk"
              />
            </>
          ) : null}
          <path d={path} className="fill-none stroke-ink" strokeWidth="2" />
          {still && stillDays >= 1 ? (
            <line
              x1={x(still.from.day)}
              x2={x(still.to)}
              y1={y(still.from.row)}
              y2={y(still.from.row)}
              className={stillDays >= STILL_DAYS ? 'stroke-brick' : 'stroke-ink'}
              strokeWidth="2"
            />
          ) : null}
          {scans.map(({ day, row }) => (
            <circle key={row} cx={x(day)} cy={y(row)} r="4" className="fill-ink" />
          ))}
          {now <= days ? (
            <>
              <line x1={x(now)} x2={x(now)} y1={TOP - 6} y2={height} className="stroke-plum" />
              <ellipse cx={x(now)} cy={TOP} rx="4" ry="6" className="fill-plum" />
            </>
          ) : null}
        </svg>
      </div>
      <div className="md:sr-only">
        <table className="w-full text-left">
          <caption className="sr-only">The way, place by place</caption>
          <thead className="sr-only">
            <tr>
              <th>Place</th>
              <th>Scanned</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ place, from }, at) => (
              <tr key={at} className="border-b border-rule">
                <td className="py-1.5 pr-3">{place}</td>
                <td className="py-1.5 text-right text-soft">
                  {from
                    ? `${shortDate(dateInZone(from, zone), locale, { weekday: true })} ${clockTime(from, zone)}`
                    : 'to come'}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {lastAt?.from ? null : <p className="sr-only">Not scanned yet</p>}
    </>
  );
}
