import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { usePlace } from '../app/company';
import { keysHere, type Binding } from '../app/keys/registry';
import { Dialog } from '../ui/dialog';
import { useSettled } from '../ui/settled';
import { jumpApi, type Target } from './api';
import { fitting } from './fits';

/** Keys that mean something only where the cursor stands. */
const ofTheField = /^(Shift\+)?(Tab|Enter|Escape|Arrow.*|Page.*|.)$/;
type Row = Target & { run?: () => void };

interface Props {
  places: { to: string; label: string; key: string }[];
  /** The key press that asked for it: actions are those that were there then. */ asked: KeyboardEvent;
  close(): void;
}

/** Jumps to a bill, supplier, account, entry or place, or does what a key would do here, by a few letters. */
export function Jump({ places, asked, close }: Props) {
  const { company, can } = usePlace();
  const navigate = useNavigate();
  const [q, setQ] = useState('');
  const [at, setAt] = useState(0);
  const settled = useSettled(q.trim());
  const { currentData: found = [], isFetching } = jumpApi.useJumpQuery(
    { company: company.id, q: settled, ledger: can('ledger:see') },
    { skip: settled.length < 2 },
  );
  const [here] = useState(() => [...places.map(placeOf), ...keysHere().flatMap((p) => actionsOf(p.bindings, asked))]);
  const rows = useMemo((): Row[] => {
    const own = fitting(here, q, (r) => r.label);
    return q.trim() === '' ? own : [...own.slice(0, 6), ...(settled.length < 2 ? [] : found)];
  }, [here, q, settled, found]);
  const inHand = Math.min(at, rows.length - 1);
  const go = (row: Row | undefined) => {
    if (!row) return;
    close();
    // The dialog gives the cursor back first.
    if (row.run) setTimeout(row.run);
    else void navigate(row.to);
  };
  const keys = (e: React.KeyboardEvent) => {
    const step = e.key === 'ArrowDown' ? 1 : e.key === 'ArrowUp' ? -1 : 0;
    if (step && rows.length) {
      e.preventDefault();
      setAt((inHand + step + rows.length) % rows.length);
    } else if (e.key === 'Enter') {
      e.preventDefault();
      go(rows[inHand]);
    }
  };
  return (
    <Dialog title="Go to" close={close}>
      <input
        data-first
        role="combobox"
        aria-label="Go to"
        aria-expanded="true"
        aria-controls="jump-list"
        aria-activedescendant={rows[inHand] ? `jump-${inHand}` : undefined}
        autoComplete="off"
        placeholder="A bill, supplier, account, entry, place or action"
        className="line-field"
        value={q}
        onChange={(e) => {
          setQ(e.target.value);
          setAt(0);
        }}
        onKeyDown={keys}
      />
      <ul id="jump-list" role="listbox" aria-label="Found" className="mt-2 h-80 overflow-auto">
        {rows.map((row, i) => (
          <li
            key={`${row.kind} ${row.id}`}
            id={`jump-${i}`}
            role="option"
            aria-selected={i === inHand}
            ref={i === inHand ? (element) => element?.scrollIntoView({ block: 'nearest' }) : undefined}
            className={`flex h-8 cursor-pointer items-center gap-3 rounded px-2 ${i === inHand ? 'bg-primary text-primary-content' : ''}`}
            onClick={() => go(row)}
          >
            <span className={`w-16 shrink-0 text-[12px] ${i === inHand ? '' : 'quiet'}`}>{row.kind}</span>
            <span className="min-w-0 truncate">{row.label}</span>
            <span className={`ml-auto max-w-52 shrink-0 truncate text-[13px] ${i === inHand ? '' : 'quiet'}`}>{row.detail}</span>
          </li>
        ))}
      </ul>
      {rows.length === 0 && (
        <p role="status" className="px-2 text-[14px] quiet">
          {isFetching || settled !== q.trim() ? 'Looking …' : 'Nothing fits.'}
        </p>
      )}
    </Dialog>
  );
}

const placeOf = ({ to, label, key }: Props['places'][number]): Row => ({ id: to, kind: 'Place', label, detail: `Alt+${key}`, to });
const actionsOf = (bindings: Binding[], asked: KeyboardEvent): Row[] =>
  bindings.flatMap((b): Row[] =>
    b.run && !ofTheField.test(b.key) && !/^(F\d+|Ctrl\+K|Alt\+\d)$/.test(b.key) && (b.when?.(asked) ?? true)
      ? [{ id: b.key, kind: 'Action', label: b.what, detail: b.key, to: '', run: () => b.run!(asked) }]
      : [],
  );
