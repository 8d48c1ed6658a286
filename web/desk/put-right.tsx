import { WandSparkles } from 'lucide-react';
import type { Bill } from '@ledgerline/contract';
import { marksOf } from './marks';

/** Figures that ink left in doubt and the sums decided: what was read at first, and which sum chose. */
export function PutRight({ bill }: { bill: Bill }) {
  const told = marksOf(bill).filter((m) => m.repaired);
  if (told.length === 0) return null;
  return (
    <ul aria-label="Put right" className="px-5 py-2 text-[13px] text-accent">
      {told.map((m) => (
        <li key={m.path} className="flex items-center gap-1.5">
          <WandSparkles size={13} aria-hidden />
          {m.label}: {m.repaired}
        </li>
      ))}
    </ul>
  );
}
