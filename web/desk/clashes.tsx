import { GitMerge } from 'lucide-react';
import { useDispatch } from 'react-redux';
import type { Bill } from '@ledgerline/contract';
import { pathName } from './marks';
import { chosen, type Held } from './state';
import type { Desk } from './use-desk';

/** Who changed it last, beside this person. */
const other = (theirs: Bill | null): string => theirs?.events.findLast((e) => e.verb === 'changed')?.person ?? 'Somebody else';

/** What two people changed at once: field by field, both values; one stays. */
export function Clashes({ desk, held }: { desk: Desk; held: Held }) {
  const dispatch = useDispatch();
  if (held.save !== 'conflict') return null;
  const who = other(held.theirs);
  const shown = (value: string | null) => (value === null ? 'nothing' : (desk.choiceOf(value)?.name ?? value));
  return (
    <section aria-label="Changed by two" className="border-b-2 border-warning bg-warning/10 px-5 py-2 text-[14px]">
      <h2 className="flex items-center gap-2 font-semibold">
        <GitMerge size={15} aria-hidden />
        {who} saved this bill meanwhile. Choose what stays; the rest of what you typed is kept.
      </h2>
      <ul className="mt-1 space-y-1">
        {held.clashes.map((c) => {
          const choose = (take: 'mine' | 'theirs') => dispatch(chosen({ id: desk.bill.id, path: c.path, take }));
          return (
            <li key={c.path} className="flex flex-wrap items-center gap-2">
              <span className="w-36 truncate">{pathName(held.theirs ?? desk.bill, c.path)}</span>
              <button className="btn btn-xs btn-outline" onClick={() => choose('mine')}>
                Yours: {c.mine === null ? 'removed' : shown(c.mine)}
              </button>
              <button className="btn btn-xs btn-outline" onClick={() => choose('theirs')}>
                {who}: {c.theirs === null && !c.path.includes('.') && c.was ? 'removed' : shown(c.theirs)}
              </button>
              <span className="text-[12px] quiet">was {shown(c.was)}</span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
