import type { Page } from '../page/index.ts';
import { hashOf } from './hash.ts';

/** So many columns and rows of places on a page, and so many bits for a word. */
const columns = 32,
  rows = 64,
  wordBits = 20;
const mostPlaces = 200;

/** A word's letters, or nothing where it has digits: these change from bill to bill. */
function lettersOf(text: string): string {
  if (/\d/.test(text)) return '';
  const plain = text
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^\p{L}]/gu, '');
  return plain.length > 2 ? plain : '';
}
const column = (place: number) => (place >> 6) & (columns - 1);
const row = (place: number) => place & (rows - 1);
const word = (place: number) => place >> 11;

/** Where which words stand on a page, as integers: 20 bits of the word, 5 of how far right, 6 of how far down. The look of its layout. */
export function placesOf({ width, height, words }: Pick<Page, 'width' | 'height' | 'words'>): number[] {
  const found = new Set<number>();
  const within = (at: number, size: number, of: number) => Math.max(0, Math.min(of - 1, Math.floor((at / size) * of)));
  for (const w of words) {
    const letters = lettersOf(w.text);
    if (letters)
      found.add(((hashOf(letters) & ((1 << wordBits) - 1)) << 11) | (within(w.x, width, columns) << 6) | within(w.y, height, rows));
    if (found.size === mostPlaces) break;
  }
  return [...found];
}

const stands = (place: number, among: readonly number[]): boolean =>
  among.some((o) => word(o) === word(place) && Math.abs(column(o) - column(place)) <= 1 && Math.abs(row(o) - row(place)) <= 1);

/** Fewer earlier pages tell no habit. */
const fewestPages = 3;
/** A page that has fewer of another's words in their places is laid out otherwise. */
const alikeFrom = 0.65;

/** The share of the words of the barer of two pages that stand in the same places on the other. */
function layoutShared(one: readonly number[], other: readonly number[]): number {
  const [few, many] = one.length < other.length ? [one, other] : [other, one];
  return few.length === 0 ? 0 : few.filter((place) => stands(place, many)).length / few.length;
}

/** Whether a page is laid out unlike every earlier one of its supplier. Nothing is said of fewer than three. */
export const laidOutAnew = (places: readonly number[], earlier: readonly (readonly number[])[]): boolean =>
  earlier.length >= fewestPages && earlier.every((page) => layoutShared(places, page) < alikeFrom);
