'use client';
import type { Route } from 'next';
import { useRouter } from 'next/navigation';
import { Bar, BarChart, Cell, ReferenceArea, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';

/** A day on the chart. `value` only sets the bar's height; every figure that is read comes as text. */
export type ChartDay = {
  readonly on: string;
  readonly day: string;
  readonly weekend: boolean;
  readonly monday: boolean;
  readonly today: boolean;
  readonly past: boolean;
  readonly value: number;
  readonly figure: string;
  readonly name: string;
  /** Near the right edge: the name ends at its bar instead of beginning there. */
  readonly nameEnds: boolean;
  readonly monthBegins: boolean;
  readonly href: string | null;
};

type Shape = { x?: number; y?: number; width?: number; height?: number; payload?: ChartDay };

/** What came in is solid; what customers are to pay is hollow. */
function DayBar({ x = 0, y = 0, width = 0, height = 0, payload }: Shape) {
  if (!payload || height <= 0) return null;
  return payload.past ? (
    <rect x={x} y={y} width={width} height={height} fill="var(--leaf)" />
  ) : (
    <rect
      x={x + 0.8}
      y={y + 0.8}
      width={Math.max(0, width - 1.6)}
      height={Math.max(0, height - 0.8)}
      fill="var(--sheet)"
      stroke="var(--dusk)"
      strokeWidth={1.6}
    />
  );
}

function DayTick({
  x,
  y,
  payload,
  days,
}: {
  x?: number | string;
  y?: number | string;
  payload?: { value: string };
  days: readonly ChartDay[];
}) {
  const day = days.find(({ on }) => on === payload?.value);
  if (!day) return null;
  const [fill, weight] = day.today
    ? ['var(--plum)', 700]
    : day.monday || day.monthBegins
      ? ['var(--ink)', 650]
      : ['var(--ink-soft)', 400];
  return (
    <text
      x={x}
      y={Number(y) + 10}
      textAnchor="middle"
      fontSize={11}
      fill={fill}
      fontWeight={weight}
      fontFamily="var(--font-sans)"
    >
      {day.day}
    </text>
  );
}

/** Names over the largest bars. */
function DayName({
  x,
  y,
  width,
  value,
  days,
}: {
  x?: number | string;
  y?: number | string;
  width?: number | string;
  value?: unknown;
  days: readonly ChartDay[];
}) {
  const day = days.find(({ on }) => on === value);
  if (!day?.name) return null;
  const middle = Number(x) + Number(width) / 2 + (day.nameEnds ? 6 : -6);
  const anchor = day.nameEnds ? 'end' : 'start';
  return (
    <g className="private">
      <text
        x={middle}
        y={Number(y) - 18}
        textAnchor={anchor}
        fontSize={12.5}
        fontWeight={600}
        fill="var(--ink)"
        fontFamily="var(--font-serif)"
      >
        {day.figure}
      </text>
      <text
        x={middle}
        y={Number(y) - 5}
        textAnchor={anchor}
        fontSize={11}
        fill="var(--ink-soft)"
        fontFamily="var(--font-sans)"
      >
        {day.name}
      </text>
    </g>
  );
}

/** Money by day: three weeks back, six ahead. A click on a day opens its largest invoice. */
export function HorizonChart({ days }: { days: readonly ChartDay[] }) {
  const router = useRouter();
  const today = days.find((day) => day.today)?.on;
  const label = (props: object) => <DayName {...props} days={days} />;
  return (
    <div className="h-[168px] w-full" aria-hidden="true">
      <ResponsiveContainer>
        <BarChart
          data={[...days]}
          margin={{ top: 36, right: 0, bottom: 0, left: 0 }}
          barCategoryGap="26%"
          accessibilityLayer={false}
        >
          {days
            .filter((day) => day.weekend)
            .map((day) => (
              <ReferenceArea
                key={day.on}
                x1={day.on}
                x2={day.on}
                fill="var(--desk)"
                fillOpacity={0.8}
                ifOverflow="visible"
              />
            ))}
          <XAxis
            dataKey="on"
            interval={0}
            tickLine={false}
            axisLine={{ stroke: 'var(--ink)' }}
            tick={(props) => <DayTick {...props} days={days} />}
            height={24}
          />
          <YAxis hide domain={[0, 'dataMax']} />
          {today ? <ReferenceLine x={today} stroke="var(--plum)" strokeWidth={1.4} /> : null}
          <Bar
            dataKey="value"
            shape={(props: object) => <DayBar {...props} />}
            isAnimationActive={false}
            label={(props: { index?: number }) => label({ ...props, value: days[props.index ?? -1]?.on })}
            onClick={(bar) => {
              const day = (bar as { payload?: ChartDay }).payload;
              if (day?.href) router.push(day.href as Route);
            }}
          >
            {days.map((day) => (
              <Cell key={day.on} cursor={day.href ? 'pointer' : 'default'} />
            ))}
          </Bar>
        </BarChart>
      </ResponsiveContainer>
    </div>
  );
}
