import { useKeys } from '../app/keys/registry';
import { focusField, nextField } from './focus';
import type { Desk } from './use-desk';

/** Paths that want a look, what stops the bill first, each once. */
export function doubtsOf(desk: Desk): string[] {
  const { exceptions, unsure } = desk.bill;
  const stops = exceptions.filter((e) => e.severity === 'stops').map((e) => e.path);
  return [...new Set([...stops, ...unsure])].filter((path) => path !== 'proof' && path !== 'lines');
}

interface Does {
  done(): void;
  setAside(): void;
  columns(): void;
  /** The next thing, or the one before, that the page has for the field in hand. */ other(by: 1 | -1): void;
  assign(): void;
  history(): void;
  /** The bill beside its orders. */ orders(): void;
  /** Takes the first repair of the sum; null where there is none. */ repair: (() => void) | null;
  /** Makes the supplier that the page names; null where there is none to make. */ supplier: (() => void) | null;
  leave(): void;
}
/** The keys of the desk. */
export function useDeskKeys(desk: Desk | null, does: Does): void {
  const open = desk && !desk.locked;
  const typing = (e: KeyboardEvent) => (e.target as HTMLElement).dataset?.['typing'] === 'true';
  useKeys('Desk', [
    { key: 'Tab', what: 'Next field (Shift+Tab: field before)' },
    {
      key: 'Enter',
      what: 'Take what stands here, go to the next field',
      typing: true,
      when: (e) => (e.target as HTMLElement).closest('[data-field]') !== null,
      run(e) {
        // What stands there is taken, doubt and all.
        if (open && desk.active && desk.bill.unsure.includes(desk.active)) desk.edit({ do: 'looked', path: desk.active });
        nextField(e.target as Element);
      },
    },
    { key: 'Ctrl+Enter', what: 'Done, next bill', when: () => Boolean(open), run: does.done },
    {
      key: 'Alt+ArrowDown',
      what: 'Next field that needs a look',
      repeat: true,
      run() {
        if (!desk) return;
        const paths = doubtsOf(desk);
        const next = paths[(paths.indexOf(desk.active ?? '') + 1) % Math.max(1, paths.length)];
        if (next) focusField(next);
      },
    },
    {
      key: 'Alt+V',
      what: 'What else the page has for this field (Alt+Shift+V: the one before)',
      when: () => Boolean(open && desk.active),
      run: () => does.other(1),
    },
    { key: 'Alt+Shift+V', what: 'The one before', silent: true, when: () => Boolean(open && desk.active), run: () => does.other(-1) },
    {
      key: 'Alt+A',
      what: 'Choose one for all rows that want it',
      when: () => Boolean(open),
      run: () => document.querySelector<HTMLElement>('[data-fill]')?.click(),
    },
    { key: 'Alt+M', what: 'Make the supplier that the page names', when: () => Boolean(does.supplier), run: () => does.supplier?.() },
    { key: 'Alt+R', what: 'Take the first repair of the sum', when: () => Boolean(open && does.repair), run: () => does.repair?.() },
    { key: 'Alt+C', what: 'Columns of the grid', run: does.columns },
    { key: 'Alt+G', what: 'Into somebody’s hands', when: () => Boolean(open), run: does.assign },
    { key: 'Alt+H', what: 'Whole history', run: does.history },
    { key: 'Alt+B', what: 'Beside the order', run: does.orders },
    { key: 'Alt+W', what: 'Write a note', run: () => document.querySelector<HTMLElement>('[data-note]')?.focus() },
    { key: 'Alt+S', what: 'Set aside', when: () => Boolean(open), run: does.setAside },
    { key: 'Ctrl+Z', what: 'Undo', repeat: true, when: (e) => Boolean(open) && !typing(e), run: () => desk!.undo() },
    { key: 'Ctrl+Y', what: 'Redo', repeat: true, when: (e) => Boolean(open) && !typing(e), run: () => desk!.redo() },
    { key: 'Ctrl+Shift+Z', what: 'Redo', repeat: true, silent: true, when: (e) => Boolean(open) && !typing(e), run: () => desk!.redo() },
    {
      key: 'Escape',
      what: 'Leave the field; then back to the list',
      typing: true,
      run: (e) => ((e.target as HTMLElement).matches('input, select, textarea') ? (e.target as HTMLElement).blur() : does.leave()),
    },
  ]);
}
