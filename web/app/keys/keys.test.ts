import { describe, expect, it } from 'vitest';
import { bindingFor, pressed, type Binding } from './registry';

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

describe('the binding that a key is for', () => {
  const bind = (key: string, more: Partial<Binding> = {}): Binding => ({ key, what: key, run: () => undefined, ...more });
  const outer = { name: 'outer', bindings: [bind('A'), bind('?'), bind('F1'), bind('Alt+S')] };
  const inner = {
    name: 'inner',
    bindings: [
      bind('A', { what: 'inner A' }),
      bind('ArrowDown', { repeat: true }),
      bind('Enter', { typing: true }),
      bind('B', { when: () => false }),
    ],
  };
  const find = (
    key: string,
    { typing = false, ...more }: { typing?: boolean; altKey?: boolean; repeat?: boolean; shiftKey?: boolean } = {},
  ) =>
    bindingFor([outer, inner], { key, ctrlKey: false, altKey: false, shiftKey: false, metaKey: false, repeat: false, ...more }, typing)
      ?.what;
  it('is the innermost place’s', () => expect(find('a')).toBe('inner A'));
  it('is none for what decides while the key is held, and goes on for arrows', () =>
    expect([find('a', { repeat: true }), find('ArrowDown', { repeat: true })]).toEqual([undefined, 'ArrowDown']));
  it('is none for a plain key in a field: "?" is typed there; F1 and Alt work everywhere', () =>
    expect([
      find('?', { typing: true, shiftKey: true }),
      find('F1', { typing: true }),
      find('s', { typing: true, altKey: true }),
      find('Enter', { typing: true }),
    ]).toEqual([undefined, 'F1', 'Alt+S', 'Enter']));
  it('is none where its condition does not hold', () => expect(find('b')).toBe(undefined));
});
