import { describe, expect, it } from 'vitest';
import { fitting } from './pick';

const choices = [
  ['6140', 'Glasshouse repairs'],
  ['6110', 'Tree work'],
  ['5000', 'Plants bought in'],
  ['6000', 'Growing média'],
].map(([code, name]) => ({ id: code!, code: code!, name: name!, detail: null }));
const codes = (typed: string) => fitting(choices, typed).map((c) => c.code);

describe('type-ahead', () => {
  it('finds by code, the whole code first', () => expect([codes('61'), codes('6110')]).toEqual([['6140', '6110'], ['6110']]));
  it('finds by any part of the name, accents or not', () =>
    expect([codes('repair'), codes('media'), codes('bought pl')]).toEqual([['6140'], ['6000'], ['5000']]));
  it('shows all when nothing is typed, none when nothing fits', () => expect([codes('').length, codes('zzz')]).toEqual([4, []]));
  it('stays quick over 50,000 entries', () =>
    expect(
      fitting(
        Array.from({ length: 50_000 }, (_, i) => ({ id: String(i), code: String(i), name: `Account ${i}`, detail: null })),
        '49999',
      )[0]?.code,
    ).toBe('49999'));
});
