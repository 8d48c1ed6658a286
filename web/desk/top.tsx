import { ArrowLeft, Ellipsis, Users } from 'lucide-react';
import { may } from '@ledgerline/contract';
import type { MoveKind } from '../bills/api';
import { useNewBill } from '../bills/new-bill';
import { channelWord } from '../arrivals/channel';
import { usePlace } from '../app/company';
import { showDay } from '../ui/format';
import { Menu, type MenuItem } from '../ui/menu';
import { StageLine } from '../ui/stage';
import { saidOf, type Sitting } from './sitting';
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

/** What the desk may ask before it does something. */
export type Asked = 'set-aside' | 'discard' | 'return' | 'assign' | 'history' | 'sitting' | 'beside' | 'repeat' | 'orders';

interface Props {
  desk: Desk;
  held: Held;
  left: number | null;
  sitting: Sitting;
  others: { id: string; name: string }[];
  act(what: MoveKind): void;
  ask(what: Asked): void;
  handOver(personId: string | null): void;
  moveCompany(to: { id: string; name: string }): void;
  leave(): void;
}

/** Above the desk: whose bill, where it stands, whether it is saved, who else is there, and what can be done with it. */
export function DeskTop({ desk, held, left, sitting, others, act, ask, handOver, moveCompany, leave }: Props) {
  const { can, company, me } = usePlace();
  const make = useNewBill();
  const { bill, locked } = desk;
  const touched = held.past.length + held.future.length > 0 || held.save !== 'clean';
  const state = touched ? (held.sentence ?? saving[held.save]) : '';
  const mine = bill.assignee?.id === me.id;
  const told = [
    bill.assignee && !mine ? `in the hands of ${bill.assignee.name}` : '',
    bill.stage === 'set-aside' && bill.asideUntil ? `comes back on ${showDay(bill.asideUntil)}` : '',
    !locked && left !== null ? `${left}${left >= 500 ? ' or more' : ''} to review` : '',
    saidOf(sitting),
    bill.turn ? `turn of ${showDay(bill.turn)}` : '',
    bill.arrival ? channelWord(bill.arrival.channel) : '',
    bill.entry ? `entry ${bill.entry.number}` : '',
  ]
    .filter((part) => part !== '')
    .join(' · ');
  const edits = can('bills:edit'),
    inHand = edits && (!locked || bill.stage === 'set-aside');
  const elsewhere = me.companies.filter((c) => c.id !== company.id && may(c.roles, 'bills:edit'));
  const more: MenuItem[] = [
    ...(inHand && !mine ? [{ text: 'Take it over', run: () => handOver(me.id) }] : []),
    ...(inHand && bill.assignee ? [{ text: 'Give it back to the queue', run: () => handOver(null) }] : []),
    ...(inHand ? [{ text: 'Into somebody’s hands …', key: 'Alt+G', run: () => ask('assign') }] : []),
    ...(inHand ? elsewhere.map((c) => ({ text: `Move to ${c.name}`, run: () => moveCompany(c) })) : []),
    ...(inHand ? [{ text: 'Discard …', run: () => ask('discard') }, null] : []),
    ...(edits
      ? [
          { text: 'A document beside it …', run: () => ask('beside') },
          { text: 'Copy as a new bill', run: () => void make({ as: 'copy', billId: bill.id }) },
          ...(bill.kind === 'invoice'
            ? [{ text: 'Credit note for it', run: () => void make({ as: 'credit-note', billId: bill.id }) }]
            : []),
          ...(bill.supplierId && !bill.turn ? [{ text: 'Make it repeat …', run: () => ask('repeat') }] : []),
          null,
        ]
      : []),
    ...(can('orders:see') ? [{ text: 'Beside the order …', key: 'Alt+B', run: () => ask('orders') }] : []),
    { text: 'Whole history', key: 'Alt+H', run: () => ask('history') },
    ...(edits ? [{ text: 'This sitting', run: () => ask('sitting') }] : []),
  ];
  return (
    <header className="flex h-[56px] shrink-0 items-center gap-3 border-b hair px-4">
      <button className="btn btn-ghost btn-sm btn-square" aria-label="Back" title="Esc" onClick={leave}>
        <ArrowLeft size={16} />
      </button>
      <div className="min-w-0">
        <h1 className="truncate font-semibold leading-5">
          {desk.choiceOf(bill.supplierId)?.name ?? bill.supplierName ?? 'Unknown supplier'}
        </h1>
        <p className="truncate text-[12px] quiet" title={told}>
          {state && (
            <>
              <span className={held.sentence ? 'text-error' : ''} role="status" aria-label="Saving" title={held.sentence ?? undefined}>
                {state}
              </span>
              {told ? ' · ' : ''}
            </>
          )}
          {told}
        </p>
      </div>
      <div className="mx-auto max-lg:hidden">
        <StageLine stage={bill.stage} events={bill.events} />
      </div>
      <p role="status" aria-label="Also here" className="shrink-0 text-[13px] text-accent">
        {others.length > 0 && (
          <span className="flex items-center gap-1" title="Has this bill open, too">
            <Users size={15} aria-hidden /> {others.map((o) => o.name).join(', ')} {others.length === 1 ? 'is' : 'are'} here
          </span>
        )}
      </p>
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
      <Menu label="More" className="btn btn-ghost btn-sm btn-square" items={more}>
        <Ellipsis size={16} />
      </Menu>
    </header>
  );
}
