import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dueOf } from './instalments.ts';
import { termsKnown, termsMeant, type ListedTerms } from './listed.ts';

const list: ListedTerms[] = [
  { code: 'MA', name: 'Monthly account', alsoCalled: 'strictly monthly, m/a', terms: '30 eom' },
  { code: 'STD', name: 'Our usual terms', alsoCalled: null, terms: '2/10 n30' },
];

describe('terms of a company’s own list', () => {
  it('are meant by their code, their name, or what suppliers write for them, however it is spaced', () => {
    for (const text of ['MA', 'ma', 'Monthly  account', 'monthly account.', 'Strictly monthly', 'M/A'])
      expect(termsMeant(text, list)).toBe('30 eom');
    expect(dueOf('2026-11-05', termsMeant('monthly account', list))).toBe('2026-12-30');
  });
  it('never by a part of a text: what says more is what it says', () => {
    for (const text of ['Monthly account, 45 days', 'net 15', 'STD 2']) expect(termsMeant(text, list)).toBe(text);
    expect([termsKnown('std', list), termsKnown('net 15', list), termsKnown('as agreed', list)]).toEqual([true, true, false]);
  });
  it('an empty alternative means nothing', () => {
    const odd = [{ ...list[0]!, alsoCalled: ' , ,' }];
    expect(termsMeant('', odd)).toBe('');
    fc.assert(fc.property(fc.string(), (text) => ['30 eom', text].includes(termsMeant(text, odd))));
  });
});
