import { ArrowLeft } from 'lucide-react';
import type { MoveKind } from '../bills/api';
import { channelWord } from '../arrivals/channel';
import { usePlace } from '../app/company';
import { StageLine } from '../ui/stage';
import type { Held } from './state';
import type { Desk } from './use-desk';

const saving: Record<Held['save'], string> = {
  clean: 'Saved',
  dirty: 'Saving …',
  saving: 'Saving …',
  refused: '',
  conflict: '',
  offline: '',
};

/** Above the desk: whose bill, where it stands, whether it is saved, and what can be done with it. */
export function DeskTop({
  desk,
  held,
  left,
  act,
  ask,
  leave,
}: {
  desk: Desk;
  held: Held;
  left: number | null;
  act(what: MoveKind): void;
  ask(what: 'set-aside' | 'discard' | 'return'): void;
  leave(): void;
}) {
  const { can } = usePlace();
  const { bill, locked } = desk;
  const touched = held.past.length + held.future.length > 0 || held.save !== 'clean';
  const state = touched ? (held.sentence ?? saving[held.save]) : '';
  const told = [
    !locked && left !== null ? `${left}${left >= 500 ? ' or more' : ''} to review` : '',
    bill.arrival ? channelWord(bill.arrival.channel) : '',
    bill.entry ? `entry ${bill.entry.number}` : '',
  ]
    .filter((part) => part !== '')
    .join(' · ');
  const edits = can('bills:edit');
  return (
    <header className="flex h-[56px] shrink-0 items-center gap-3 border-b hair px-4">
      <button className="btn btn-ghost btn-sm btn-square" aria-label="Back" title="Esc" onClick={leave}>
        <ArrowLeft size={16} />
      </button>
      <div className="min-w-0">
        <h1 className="truncate font-semibold leading-5">
          {desk.choiceOf(bill.supplierId)?.name ?? bill.supplierName ?? 'Unknown supplier'}
        </h1>
        <p className="truncate text-[12px] quiet">
          {told}
          {told && state ? ' · ' : ''}
          <span className={held.sentence ? 'text-error' : ''} role="status" aria-label="Saving" title={held.sentence ?? undefined}>
            {state}
          </span>
        </p>
      </div>
      <div className="mx-auto max-lg:hidden">
        <StageLine stage={bill.stage} events={bill.events} />
      </div>
      {!locked && (
        <>
          <button className="btn btn-sm" title="Alt+S" onClick={() => ask('set-aside')}>
            Set aside
          </button>
          <button className="btn btn-primary btn-sm" title="Ctrl+Enter" onClick={() => act('send')}>
            Done, next <kbd className="key">Ctrl ⏎</kbd>
          </button>
        </>
      )}
      {edits && bill.stage === 'coded' && (
        <button className="btn btn-sm" onClick={() => act('take-back')}>
          Take back
        </button>
      )}
      {can('bills:return') && bill.stage === 'approved' && (
        <button className="btn btn-sm" onClick={() => ask('return')}>
          Return
        </button>
      )}
      {edits && ['set-aside', 'discarded'].includes(bill.stage) && (
        <button className="btn btn-sm" onClick={() => act('restore')}>
          Take up again
        </button>
      )}
      {edits && bill.stage === 'set-aside' && (
        <button className="btn btn-sm" onClick={() => ask('discard')}>
          Discard
        </button>
      )}
    </header>
  );
}
