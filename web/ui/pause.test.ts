import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { afterPause } from './pause';

let said: string[];
beforeEach(() => {
  vi.useFakeTimers();
  said = [];
});
afterEach(() => vi.useRealTimers());
const field = () => afterPause((text) => said.push(text), 250);

it('waits for a pause, and says only the last', () => {
  const f = field();
  f.typed('q');
  vi.advanceTimersByTime(249);
  f.typed('qu');
  vi.advanceTimersByTime(249);
  expect([said, f.pending()]).toEqual([[], true]);
  vi.advanceTimersByTime(1);
  expect([said, f.pending()]).toEqual([['qu'], false]);
});
it('asked for, it says it at once, and never again', () => {
  const f = field();
  f.typed('quillhaven');
  f.now();
  f.now();
  vi.advanceTimersByTime(1000);
  expect(said).toEqual(['quillhaven']);
});
it('what was dropped is not said', () => {
  const f = field();
  f.typed('quillhaven');
  f.drop();
  f.now();
  vi.advanceTimersByTime(1000);
  expect(said).toEqual([]);
});
it('an emptied field is said too', () => {
  const f = field();
  f.typed('');
  f.now();
  expect(said).toEqual(['']);
});
