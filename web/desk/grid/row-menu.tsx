import { EllipsisVertical } from 'lucide-react';
import { useRef, useState } from 'react';
import type { LineKind } from '@ledgerline/core/bills';
import type { BillLine } from '@ledgerline/contract';

/** What can be done with cells and rows, by mouse and by key. */
export interface RowActs {
  take(row: number, column: number): void;
  press(row: number, column: number, extend: boolean): void;
  draw(row: number, column: number): void;
  selectRows(row: number, extend: boolean): void;
  insert(row: number, where: 'above' | 'below'): void;
  move(row: number, by: -1 | 1): void;
  split(row: number): void;
  join(row: number): void;
  kind(row: number, kind: LineKind): void;
  toAll(row: number): void;
  remove(row: number): void;
}

/** A row's own menu: what the keys do, for the mouse. */
export function RowMenu({ index, line, acts, last }: { index: number; line: BillLine; acts: RowActs; last: boolean }) {
  const button = useRef<HTMLButtonElement>(null);
  const [open, setOpen] = useState(false);
  const item = (text: string, key: string | null, run: () => void, off = false) => (
    <li role="none">
      <button
        role="menuitem"
        disabled={off}
        className="flex w-full justify-between gap-6 px-3 py-1 text-left hover:bg-primary/10 focus:bg-primary/10 disabled:opacity-40"
        onClick={() => {
          setOpen(false);
          run();
        }}
      >
        {text}
        {key && <kbd className="quiet text-[12px]">{key}</kbd>}
      </button>
    </li>
  );
  const rect = open ? button.current?.getBoundingClientRect() : null;
  return (
    <>
      <button
        ref={button}
        tabIndex={-1}
        className="btn btn-ghost btn-xs btn-square mt-1 opacity-40 group-hover:opacity-100 aria-expanded:opacity-100"
        aria-label={`Row ${index + 1}: what can be done`}
        aria-haspopup="menu"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        <EllipsisVertical size={14} />
      </button>
      {open && rect && (
        <ul
          role="menu"
          aria-label={`Row ${index + 1}`}
          ref={(ul) => ul?.querySelector('button')?.focus()}
          className="fixed z-50 w-64 rounded-box border hair bg-base-100 py-1 text-[14px] text-base-content shadow-lg"
          style={{
            right: innerWidth - rect.right,
            ...(rect.bottom + 330 > innerHeight ? { bottom: innerHeight - rect.top } : { top: rect.bottom }),
          }}
          onBlur={(e) => {
            if (!e.currentTarget.contains(e.relatedTarget)) setOpen(false);
          }}
          onKeyDown={(e) => {
            e.stopPropagation();
            e.nativeEvent.stopImmediatePropagation();
            const all = [...e.currentTarget.querySelectorAll<HTMLElement>('button:not([disabled])')];
            const at = all.indexOf(document.activeElement as HTMLElement);
            if (e.key === 'Escape') {
              setOpen(false);
              acts.take(index, 0);
            } else if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
              e.preventDefault();
              all[(at + (e.key === 'ArrowDown' ? 1 : all.length - 1)) % all.length]?.focus();
            }
          }}
        >
          {item('Insert a row above', 'Alt+Shift+N', () => acts.insert(index, 'above'))}
          {item('Insert a row below', 'Alt+N', () => acts.insert(index, 'below'))}
          {item('Move up', 'Alt+Shift+↑', () => acts.move(index, -1), index === 0)}
          {item('Move down', 'Alt+Shift+↓', () => acts.move(index, 1), last)}
          {item('Split …', 'Alt+X', () => acts.split(index), line.kind === 'text' || line.amount === null)}
          {item('Join with the next row', 'Alt+J', () => acts.join(index), last)}
          {item('Copy the cell in hand to all rows', 'Alt+L', () => acts.toAll(index))}
          <li role="separator" className="my-1 border-t hair" />
          {line.kind !== 'line' && item('Make it goods or a service', 'Alt+K', () => acts.kind(index, 'line'))}
          {line.kind !== 'charge' && item('Make it a charge', line.kind === 'line' ? 'Alt+K' : null, () => acts.kind(index, 'charge'))}
          {line.kind !== 'text' && item('Make it text alone', line.kind === 'charge' ? 'Alt+K' : null, () => acts.kind(index, 'text'))}
          <li role="separator" className="my-1 border-t hair" />
          {item('Remove', 'Alt+Delete', () => acts.remove(index))}
        </ul>
      )}
    </>
  );
}
