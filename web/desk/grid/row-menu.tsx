import { EllipsisVertical } from 'lucide-react';
import type { LineKind } from '@ledgerline/core/bills';
import type { BillLine } from '@ledgerline/contract';
import { Menu, type MenuItem } from '../../ui/menu';

/** What can be done with cells and rows, by mouse and by key. */
export interface RowActs {
  take(row: number, column: number): void;
  press(row: number, column: number, extend: boolean): void;
  draw(row: number, column: number): void;
  selectRows(row: number, extend: boolean): void;
  insert(row: number, where: 'above' | 'below'): void;
  move(row: number, by: -1 | 1): void;
  /** Splits it, lays down how lines like it are coded, has it take an item, or shares it over what came: each by a dialog. */ ask(
    what: 'split' | 'rule' | 'item' | 'share',
    row: number,
  ): void;
  join(row: number): void;
  kind(row: number, kind: LineKind): void;
  toAll(row: number): void;
  remove(row: number): void;
}

/** A row's own menu: what the keys do, for the mouse. */
export function RowMenu({ index, line, acts, last }: { index: number; line: BillLine; acts: RowActs; last: boolean }) {
  const kind = (text: string, to: LineKind, key: boolean): MenuItem[] =>
    line.kind === to ? [] : [{ text, run: () => acts.kind(index, to), ...(key ? { key: 'Alt+K' } : {}) }];
  return (
    <Menu
      label={`Row ${index + 1}: what can be done`}
      tabIndex={-1}
      className="btn btn-ghost btn-xs btn-square mt-1 opacity-40 group-hover:opacity-100 aria-expanded:opacity-100"
      left={() => acts.take(index, 0)}
      items={[
        { text: 'Insert a row above', key: 'Alt+Shift+N', run: () => acts.insert(index, 'above') },
        { text: 'Insert a row below', key: 'Alt+N', run: () => acts.insert(index, 'below') },
        { text: 'Move up', key: 'Alt+Shift+↑', run: () => acts.move(index, -1), off: index === 0 },
        { text: 'Move down', key: 'Alt+Shift+↓', run: () => acts.move(index, 1), off: last },
        { text: 'Split …', key: 'Alt+X', run: () => acts.ask('split', index), off: line.kind === 'text' || line.amount === null },
        { text: 'Join with the next row', key: 'Alt+J', run: () => acts.join(index), off: last },
        { text: 'Copy the cell in hand to all', key: 'Alt+L', run: () => acts.toAll(index) },
        { text: 'Take an item …', key: 'Alt+I', run: () => acts.ask('item', index), off: line.kind === 'text' },
        { text: 'Make a rule of it …', key: 'Alt+U', run: () => acts.ask('rule', index), off: line.kind === 'text' },
        null,
        ...kind('Make it goods or a service', 'line', line.kind === 'text'),
        ...kind('Make it a charge', 'charge', line.kind === 'line'),
        ...kind('Buy it into stock', 'stock', line.kind === 'charge'),
        ...kind('Make it an asset', 'asset', line.kind === 'stock'),
        ...kind('Make it text alone', 'text', line.kind === 'asset'),
        ...(line.kind === 'charge'
          ? [{ text: 'Share over what came …', key: 'Alt+P', run: () => acts.ask('share', index), off: line.amount === null }]
          : []),
        null,
        { text: 'Remove', key: 'Alt+Delete', run: () => acts.remove(index) },
      ]}
    >
      <EllipsisVertical size={14} />
    </Menu>
  );
}
