'use client';
import { Bar, BarChart, CartesianGrid, Legend, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';

const SERIES = [
  ['Memberships, received', 'var(--plum)'],
  ['Instalments, received', 'var(--dusk)'],
  ['Still expected', 'var(--petal-mid)'],
] as const;

/** Received and still expected money by month, in the currency's main unit. */
export function FiguresChart({ data }: { data: readonly Record<string, string | number>[] }) {
  return (
    <figure aria-label="Received and expected by month" className="private">
      <ResponsiveContainer width="100%" height={260}>
        <BarChart data={[...data]} margin={{ left: 4, right: 4 }}>
          <CartesianGrid vertical={false} stroke="var(--rule)" />
          <XAxis dataKey="month" tick={{ fontSize: 11, fill: 'var(--ink-soft)' }} tickLine={false} />
          <YAxis width={58} tick={{ fontSize: 11, fill: 'var(--ink-soft)' }} tickLine={false} axisLine={false} />
          <Tooltip contentStyle={{ background: 'var(--sheet)', border: '1px solid var(--rule)' }} />
          <Legend formatter={(name) => <span style={{ color: 'var(--ink)' }}>{name}</span>} />
          {SERIES.map(([name, colour]) => (
            <Bar key={name} dataKey={name} stackId="all" fill={colour} isAnimationActive={false} />
          ))}
        </BarChart>
      </ResponsiveContainer>
    </figure>
  );
}
