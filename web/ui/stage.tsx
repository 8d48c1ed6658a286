import { Ban, Check, CircleDot, Clock, CornerUpLeft, FileCheck, Pause, Stamp, Undo2, Wallet } from 'lucide-react';
import type { Bill } from '@ledgerline/contract';
import { showTime } from './format';

const stops = ['arrived', 'read', 'reviewed', 'coded', 'approved', 'posted', 'paid'] as const;
const present: Record<string, number> = {
  read: 2,
  returned: 2,
  'set-aside': 2,
  discarded: 2,
  coded: 4,
  approved: 5,
  posted: 6,
  paid: 7,
  reversed: 6,
};

/** Where a bill stands on its way: stops done, the one in hand, who and when on hover. */
export function StageLine({ stage, events }: Pick<Bill, 'stage' | 'events'>) {
  const now = present[stage] ?? 0;
  const said = (stop: string) => events.findLast((e) => e.verb === stop || (stop === 'reviewed' && e.verb === 'coded'));
  return (
    <ol aria-label={`Stage: ${stage}`} className="flex items-start">
      {stops.map((stop, i) => {
        const event = i < now ? said(stop) : undefined;
        const title = event ? `${stop}: ${event.person ?? 'Ledgerline'}, ${showTime(event.at)}` : stop;
        return (
          <li key={stop} title={title} className="relative w-[58px] text-center text-[11px]">
            {i > 0 && (
              <span className={`absolute top-[5px] right-1/2 h-[2px] w-full ${i <= now ? 'bg-primary' : 'bg-base-300'}`} aria-hidden />
            )}
            <span
              className={`relative mx-auto block size-3 rounded-full border-2 ${i < now ? 'border-primary bg-primary' : i === now ? 'border-warning bg-warning' : 'border-base-300 bg-base-100'}`}
              aria-hidden
            />
            <span className={i === now ? 'font-semibold' : i < now ? '' : 'quiet'}>{stop}</span>
          </li>
        );
      })}
    </ol>
  );
}

const names: Record<string, { word: string; icon: typeof Check; tone: string }> = {
  read: { word: 'to review', icon: CircleDot, tone: 'text-primary' },
  returned: { word: 'returned', icon: CornerUpLeft, tone: 'text-error' },
  coded: { word: 'with approver', icon: Clock, tone: 'text-accent' },
  approved: { word: 'ready to post', icon: Stamp, tone: 'text-accent' },
  posted: { word: 'posted', icon: FileCheck, tone: 'text-success' },
  paid: { word: 'paid', icon: Wallet, tone: 'quiet' },
  reversed: { word: 'reversed', icon: Undo2, tone: 'quiet' },
  'set-aside': { word: 'set aside', icon: Pause, tone: 'quiet' },
  discarded: { word: 'discarded', icon: Ban, tone: 'quiet' },
};

/** A stage in a list: an icon and a word. */
export function StageWord({ stage }: { stage: string }) {
  const { word, icon: Icon, tone } = names[stage] ?? { word: stage, icon: Check, tone: '' };
  return (
    <span className={`inline-flex h-5 items-center gap-1.5 align-middle whitespace-nowrap ${tone}`}>
      <Icon size={14} aria-hidden />
      {word}
    </span>
  );
}
