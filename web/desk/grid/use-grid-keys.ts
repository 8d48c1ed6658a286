import { useRef } from 'react';
import { useKeys, type Binding } from '../../app/keys/registry';
import type { Desk } from '../use-desk';
import { clear, fillDown } from './edits';
import type { RowActs } from './row-menu';
import { at, columnOf, isOne, moved, movingKeys, rowsOf, tabbed, wholeOf, type Selection } from './selection';
import { kindsInTurn } from './use-acts';
import type { Grid } from './use-grid';

const inGrid = (e: KeyboardEvent): boolean => e.target instanceof Element && e.target.closest('[data-grid] tbody') !== null;

/** The keys of the rows, as people know them from spreadsheets. */
export function useGridKeys(desk: Desk | null, grid: Grid | null, acts: RowActs): void {
  // Enter after a run of Tabs goes to the column in which the run began.
  const runFrom = useRef<number | null>(null);
  const s = grid?.selection ?? null;
  const state = () => grid?.editor.current?.typing() ?? 'no';
  const here = (e: KeyboardEvent) => inGrid(e) && s !== null;
  const ready = (e: KeyboardEvent) => here(e) && state() === 'no';
  const open = (e: KeyboardEvent) => here(e) && Boolean(desk && !desk.locked);
  const row = s?.head.row ?? Math.max(0, (grid?.size.rows ?? 1) - 1);
  const go = (next: Selection | null, run: number | null = null): void => {
    if (next && grid?.select(next)) runFrom.current = run;
  };
  const moves = movingKeys.flatMap((name): Binding[] => [
    ...[name, ...(/Page/.test(name) ? [] : [`Ctrl+${name}`])].flatMap((key): Binding[] => [
      {
        key,
        what: 'The cell beside, a screen on, the first or last',
        silent: key !== 'ArrowDown',
        typing: true,
        repeat: true,
        when: (e) => here(e) && state() !== 'edit',
        run: () => go(moved(s!, key, grid!.size)),
      },
      {
        key: key.includes('Ctrl+') ? key.replace('Ctrl+', 'Ctrl+Shift+') : `Shift+${key}`,
        what: 'Select on to there',
        silent: key !== 'ArrowDown',
        typing: true,
        repeat: true,
        when: ready,
        run: () => go(moved(s!, key, grid!.size, true)),
      },
    ]),
  ]);
  const settle = () => {
    const path = s && grid?.pathOf(s.head.row, s.head.column);
    if (path && desk && !desk.locked && desk.bill.unsure.includes(path)) desk.edit({ do: 'looked', path });
  };
  useKeys('Rows', [
    ...moves,
    {
      key: 'Tab',
      what: 'Cell to the right (Shift+Tab: to the left)',
      typing: true,
      repeat: true,
      when: (e) => here(e) && tabbed(s!, grid!.size) !== null,
      run: () => go(tabbed(s!, grid!.size), runFrom.current ?? s!.head.column),
    },
    {
      key: 'Shift+Tab',
      what: 'Cell to the left',
      silent: true,
      typing: true,
      repeat: true,
      when: (e) => here(e) && tabbed(s!, grid!.size, true) !== null,
      run: () => go(tabbed(s!, grid!.size, true), runFrom.current),
    },
    {
      key: 'Enter',
      what: 'Take what stands here, go down (after Tab: to where the row began)',
      typing: true,
      when: here,
      run() {
        if (grid!.editor.current && !grid!.editor.current.commit()) return;
        settle();
        go(moved(at(s!.head.row, runFrom.current ?? s!.head.column), 'ArrowDown', grid!.size));
      },
    },
    {
      key: 'Shift+Enter',
      what: 'Take what stands here, go up',
      silent: true,
      typing: true,
      when: here,
      run: () => go(moved(s!, 'ArrowUp', grid!.size)),
    },
    { key: 'F2', what: 'Put the cursor into the cell', when: ready, run: () => grid!.editor.current?.begin() },
    {
      key: 'Alt+Enter',
      what: 'A new line in the description',
      when: (e) => open(e) && (e.target as HTMLElement).matches('textarea'),
      run() {
        if (state() === 'no') grid!.editor.current!.begin();
        document.execCommand('insertText', false, '\n');
      },
    },
    {
      key: 'Escape',
      what: 'Leave the cell as it was; leave the selection',
      typing: true,
      when: (e) => here(e) && (state() !== 'no' || !isOne(s!)),
      run: () => (state() === 'no' ? go(at(s!.head.row, s!.head.column)) : grid!.editor.current!.cancel()),
    },
    {
      key: 'Delete',
      what: 'Empty what is selected',
      typing: true,
      when: (e) => open(e) && state() === 'no',
      run: () => desk!.edit(...clear(desk!.bill, grid!.columns, grid!.block!)),
    },
    { key: 'Ctrl+A', what: 'Select all rows', when: ready, run: () => go(turned(wholeOf(grid!.size))) },
    { key: 'Shift+Space', what: 'Select the row', typing: true, when: ready, run: () => go(rowsOf(row, row, grid!.size)) },
    { key: 'Ctrl+Space', what: 'Select the column', when: ready, run: () => go(turned(columnOf(s!.head.column, grid!.size))) },
    {
      key: 'Ctrl+C',
      what: 'Copy, cut (Ctrl+X), paste (Ctrl+V): from and to spreadsheets',
    },
    {
      key: 'Ctrl+D',
      what: 'Fill down: the first selected row, or the one above',
      when: open,
      run: () => desk!.edit(...fillDown(desk!.bill, grid!.columns, grid!.block!)),
    },
    { key: 'Alt+L', what: 'Copy what is selected to all rows', when: open, run: () => acts.toAll(grid!.block!.top) },
    {
      key: 'Alt+N',
      what: 'Insert a row below (Alt+Shift+N: above)',
      when: () => Boolean(desk && !desk.locked),
      run: () => acts.insert(row, 'below'),
    },
    {
      key: 'Alt+Shift+N',
      what: 'Insert a row above',
      silent: true,
      when: () => Boolean(desk && !desk.locked),
      run: () => acts.insert(row, 'above'),
    },
    { key: 'Alt+Shift+ArrowUp', what: 'Move the row up (Alt+Shift+Down: down)', repeat: true, when: open, run: () => acts.move(row, -1) },
    { key: 'Alt+Shift+ArrowDown', what: 'Move the row down', silent: true, repeat: true, when: open, run: () => acts.move(row, 1) },
    {
      key: 'Alt+X',
      what: 'Split the row by amount or percent',
      when: (e) => open(e) && desk!.bill.lines[row]?.amount !== null && desk!.bill.lines[row]?.kind !== 'text',
      run: () => acts.ask('split', row),
    },
    {
      key: 'Alt+U',
      what: 'Make a rule of the row',
      when: (e) => open(e) && desk!.bill.lines[row]?.kind !== 'text',
      run: () => acts.ask('rule', row),
    },
    {
      key: 'Alt+I',
      what: 'The row takes an item',
      when: (e) => open(e) && desk!.bill.lines[row]?.kind !== 'text',
      run: () => acts.ask('item', row),
    },
    {
      key: 'Alt+P',
      what: 'Share the charge over what came',
      when: (e) => here(e) && desk!.bill.lines[row]?.kind === 'charge' && desk!.bill.lines[row].amount !== null,
      run: () => acts.ask('share', row),
    },
    { key: 'Alt+J', what: 'Join the selected rows, or this and the next', when: open, run: () => acts.join(grid!.block!.top) },
    {
      key: 'Alt+K',
      what: 'Goods or service, charge, text alone: the next kind',
      when: open,
      run() {
        const kind = desk!.bill.lines[row]!.kind;
        acts.kind(row, kindsInTurn[(kindsInTurn.indexOf(kind) + 1) % kindsInTurn.length]!);
      },
    },
    { key: 'Alt+Delete', what: 'Remove the selected rows', when: open, run: () => acts.remove(row) },
  ]);
}

/** The same block with the cursor at its beginning, so that nothing scrolls away. */
const turned = ({ anchor, head }: Selection): Selection => ({ anchor: head, head: anchor });
