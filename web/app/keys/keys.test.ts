import { describe, expect, it } from 'vitest';
import { pressed } from './registry';

const press = (key: string, more: Partial<Record<'ctrlKey' | 'altKey' | 'shiftKey' | 'metaKey', boolean>> = {}) =>
  pressed({ key, ctrlKey: false, altKey: false, shiftKey: false, metaKey: false, ...more });

describe('a key press as it is written', () => {
  it.each([
    [press('a'), 'A'],
    [press('s', { altKey: true }), 'Alt+S'],
    [press('Enter', { ctrlKey: true }), 'Ctrl+Enter'],
    [press('z', { ctrlKey: true, shiftKey: true }), 'Ctrl+Shift+Z'],
    [press('?', { shiftKey: true }), '?'],
    [press('Tab', { shiftKey: true }), 'Shift+Tab'],
    [press(' '), 'Space'],
    [press('F1'), 'F1'],
    [press('k', { metaKey: true }), 'Ctrl+K'],
  ])('%s', (made, written) => expect(made).toBe(written));
});
