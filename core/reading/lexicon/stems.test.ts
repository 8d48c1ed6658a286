import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainWord } from '../learned/features.ts';
import { speaksOf } from './stems.ts';

const of = (word: string) => speaksOf(plainWord(word));

describe('what a word speaks of', () => {
  it.each([
    ['Bestellnummer', 'order'],
    ['zamówienie', 'order'],
    ['Rechnungsnummer:', 'invoice'],
    ['Fakturanr.', 'invoice'],
    ['Forfallsdato', 'due'],
    ['échéance', 'due'],
    ['splatnosti', 'due'],
    ['Määrä', 'quantity'],
    ['Gutschrift', 'credit'],
    ['Zwischensumme', 'net'],
    ['Lieferschein', 'delivery'],
  ] as const)('%s: %s', (word, what) => expect(of(word)).toContain(what));
  it('a short word is meant whole', () => {
    expect(of('PO')).toContain('order');
    expect(of('Post')).not.toContain('order');
  });
  it('case, accents and signs make no difference; a name says nothing', () => {
    expect(of('BÉTALBAAR,')).toEqual(of('betalbaar'));
    expect(of('Wrenbodkin')).toEqual([]);
  });
  it('never says a thing twice', () =>
    fc.assert(fc.property(fc.string({ maxLength: 14 }), (word) => new Set(of(word)).size === of(word).length)));
});
