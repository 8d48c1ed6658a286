import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { codingOf, type Coding } from '@ledgerline/core/bills';
import type { Choice } from '@ledgerline/contract';
import { codedWith } from './coded-with';

type Going = NonNullable<Choice['going']>;
const choice = (id: string, going: Going = []): Choice => ({ id, code: id, name: id, detail: null, going });
const goes = (field: Going[number]['field'], id: string): Going[number] => ({ field, id, code: id, name: id });
const north = choice('north', [goes('dimension1', 'roof'), goes('dimension2', 'appeal')]),
  south = choice('south', [goes('dimension1', 'wetland')]),
  plain = choice('plain');
const known: Record<string, Choice> = { north, south, plain };
/** A row after a choice in a field. */
function coded(line: Partial<Coding>, field: keyof Coding, picked: Choice | null): Partial<Coding> {
  const after: Record<string, string | null> = { ...line };
  for (const op of codedWith({ id: 'l', ...codingOf(line) }, field, picked, (id) => (id ? (known[id] ?? null) : null)))
    if (op.do === 'set-cell') after[op.field] = op.value;
  return after;
}

describe('a row that is coded', () => {
  it('takes what goes with the choice where nothing stands', () =>
    expect(coded({}, 'costCentreId', north)).toEqual({ costCentreId: 'north', dimension1: 'roof', dimension2: 'appeal' }));
  it('keeps what somebody chose otherwise', () =>
    expect(coded({ dimension1: 'visitor' }, 'costCentreId', north)).toEqual({
      costCentreId: 'north',
      dimension1: 'visitor',
      dimension2: 'appeal',
    }));
  it('changes what came along with the one before, and empties it where the new one brings nothing', () => {
    const at = { costCentreId: 'north', dimension1: 'roof', dimension2: 'appeal' };
    expect(coded(at, 'costCentreId', south)).toEqual({ costCentreId: 'south', dimension1: 'wetland', dimension2: null });
    expect(coded(at, 'costCentreId', plain)).toEqual({ costCentreId: 'plain', dimension1: null, dimension2: null });
    expect(coded(at, 'costCentreId', null)).toEqual({ costCentreId: null, dimension1: null, dimension2: null });
  });
  it('keeps a tax code that came along with an account: the page’s rate has not changed', () => {
    known['goods'] = choice('goods', [goes('taxCodeId', 'z0')]);
    expect(coded({ accountId: 'goods', taxCodeId: 'z0' }, 'accountId', plain)).toEqual({ accountId: 'plain', taxCodeId: 'z0' });
  });
  it('whatever is chosen in turn, holds at last what was chosen by hand and what goes with the last choice', () =>
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(north, south, plain), { minLength: 1 }),
        fc.option(fc.constant('mine'), { nil: null }),
        (picks, own) => {
          let line: Partial<Coding> = { dimension1: own };
          for (const pick of picks) line = coded(line, 'costCentreId', pick);
          const last = picks.at(-1)!,
            brought = (field: string) => last.going!.find((g) => g.field === field)?.id ?? null;
          expect(line).toMatchObject({ costCentreId: last.id, dimension1: own ?? brought('dimension1') });
          expect(line.dimension2 ?? null).toBe(brought('dimension2'));
        },
      ),
    ));
});
