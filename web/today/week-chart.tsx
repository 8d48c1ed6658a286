import { Bar, BarChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import type { Today } from '@ledgerline/contract';

/** Bills that arrived and that were posted, day by day. */
export function WeekChart({ of }: { of: Today['week'] }) {
  return (
    <ResponsiveContainer>
      <BarChart accessibilityLayer={false} data={of.map((d) => ({ ...d, day: d.day.slice(8) }))} barGap={0}>
        <XAxis dataKey="day" tickLine={false} fontSize={12} stroke="var(--color-neutral)" />
        <YAxis allowDecimals={false} width={28} tickLine={false} axisLine={false} fontSize={12} stroke="var(--color-neutral)" />
        <Tooltip
          contentStyle={{ background: 'var(--color-base-100)', border: '1px solid var(--color-base-300)' }}
          cursor={{ fill: 'var(--color-base-200)' }}
        />
        <Bar dataKey="arrived" fill="var(--color-primary)" isAnimationActive={false} />
        <Bar dataKey="posted" fill="var(--color-accent)" isAnimationActive={false} />
      </BarChart>
    </ResponsiveContainer>
  );
}
