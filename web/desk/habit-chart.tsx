import { Bar, BarChart, Cell, XAxis, YAxis } from 'recharts';
import { money } from '../ui/format';

/** Amounts that came before as bars, the oldest first, and after them this one, lit. */
export function HabitChart({ earlier, now, currency }: { earlier: readonly string[]; now: string; currency: string }) {
  const bars = [...earlier, now].map((amount, i) => ({ i, amount: Number(amount) }));
  const words = `The last ${earlier.length}, and this one: ${money(now, currency)}`;
  return (
    <span role="img" aria-label={words} title={words} className="shrink-0">
      <BarChart
        width={132}
        height={26}
        data={bars}
        margin={{ top: 1, right: 0, bottom: 0, left: 0 }}
        barCategoryGap={1}
        accessibilityLayer={false}
      >
        <XAxis dataKey="i" hide />
        <YAxis domain={[0, 'dataMax']} hide />
        <Bar dataKey="amount" isAnimationActive={false} minPointSize={1}>
          {bars.map(({ i }) => (
            <Cell key={i} fill={i === earlier.length ? 'var(--color-warning)' : 'var(--color-accent)'} />
          ))}
        </Bar>
      </BarChart>
    </span>
  );
}
