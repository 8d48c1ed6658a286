import { expect, it } from 'vitest';
import { noteDone, saidOf, sittingOf } from './sitting';

function memory(): Storage {
  const kept = new Map<string, string>();
  return { getItem: (k: string) => kept.get(k) ?? null, setItem: (k: string, v: string) => void kept.set(k, v) } as unknown as Storage;
}
const at = (minute: number) => new Date(Date.UTC(2026, 10, 26, 9, minute));

it('counts bills, and the usual time and keys of one', () => {
  const storage = memory();
  expect(saidOf(sittingOf(storage, 'ines', at(0)))).toBe('');
  noteDone(storage, 'ines', { id: 'a', number: 'A', seconds: 20, keys: 1 }, at(1));
  noteDone(storage, 'ines', { id: 'b', number: 'B', seconds: 40, keys: 2 }, at(2));
  expect(saidOf(noteDone(storage, 'ines', { id: 'c', number: 'C', seconds: 3000, keys: 9 }, at(50)))).toBe('3 done, 40 s and 2 keys each');
  expect(saidOf(sittingOf(storage, 'tobias', at(51)))).toBe('');
});
it('a bill that was taken back and done again counts once', () => {
  const storage = memory();
  noteDone(storage, 'ines', { id: 'a', number: 'A', seconds: 20, keys: 1 }, at(1));
  expect(saidOf(noteDone(storage, 'ines', { id: 'a', number: 'A', seconds: 10, keys: 3 }, at(2)))).toBe('1 done, 30 s and 4 keys each');
});
it('a long break begins a new one, and so does what cannot be read', () => {
  const storage = memory();
  noteDone(storage, 'ines', { id: 'a', number: 'A', seconds: 20, keys: 1 }, at(1));
  expect(sittingOf(storage, 'ines', at(65)).done).toEqual([]);
  storage.setItem('sitting ines', '{oops');
  expect(sittingOf(storage, 'ines', at(2)).done).toEqual([]);
});
