import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyAll, cellPath, emptyCells, type Operation } from '@ledgerline/core/bills';
import type { Bill } from '@ledgerline/contract';
import { applyWhatFits, changedPaths, clashesOf, merged, mineOn, stepOf, valueAt, withoutPath } from './held';

const line = (id: string, amount: string) => ({ ...emptyCells(), id, kind: 'line' as const, description: id, amount, marks: {} });
const base = {
  id: 'b',
  rowVersion: 1,
  terms: null,
  gross: '3',
  net: null,
  unsure: [],
  marks: {},
  lines: [line('a', '1'), line('b', '2'), line('c', '3')],
} as unknown as Bill;
const set = (field: 'terms' | 'gross' | 'net', value: string): Operation => ({ do: 'set', field, value });
const cell = (id: string, value: string): Operation => ({ do: 'set-cell', line: id, field: 'amount', value });
const remove = (id: string): Operation => ({ do: 'remove-line', line: id });

describe('what is typed and not sent', () => {
  it('is the last value of each field, with the place it was taken from', () => {
    const mark = { page: 1, x: 1, y: 1, w: 1, h: 1 };
    const clicked: Operation = { do: 'set', field: 'gross', value: '4', mark };
    expect([set('terms', 'x'), clicked, set('terms', 'y'), set('gross', '5')].reduce<Operation[]>(merged, [])).toEqual([
      set('terms', 'y'),
      { do: 'set', field: 'gross', value: '5', mark },
    ]);
  });
  it('keeps what was typed in a row before it went and after it came back', () =>
    expect(
      [cell('a', '7'), remove('a'), { do: 'add-line', line: 'a', kind: 'line', after: null } as Operation, cell('a', '8')].reduce<
        Operation[]
      >(merged, []),
    ).toHaveLength(4));
  const ops = fc.array(
    fc.oneof(
      fc.tuple(fc.constantFrom('terms' as const, 'gross' as const, 'net' as const), fc.constantFrom('1', '2')).map(([f, v]) => set(f, v)),
      fc.tuple(fc.constantFrom('a', 'b', 'c'), fc.constantFrom('1', '2', '9')).map(([l, v]) => cell(l, v)),
    ),
    { maxLength: 12 },
  );
  it('makes the same bill as all that was typed', () =>
    fc.assert(
      fc.property(ops, (typed) => {
        const short = typed.reduce<Operation[]>(merged, []);
        expect(short.length).toBeLessThanOrEqual(6);
        expect(applyAll(base, short)).toEqual(applyAll(base, typed));
      }),
    ));
});

describe('a step', () => {
  it('leaves out what does not fit, and takes the rest back in the other order', () => {
    const { redo, undo } = stepOf(base, [set('terms', 'x'), cell('gone', '1'), remove('a')]);
    expect([redo.length, undo.length]).toEqual([2, 2]);
    expect(applyAll(applyAll(base, redo), undo).lines.map((l) => l.id)).toEqual(['a', 'b', 'c']);
  });
  it('tells apart what does not fit', () =>
    expect(applyWhatFits(base, [cell('gone', '1'), set('terms', 'x')])).toMatchObject({
      bill: { terms: 'x' },
      misfits: [cell('gone', '1')],
    }));
});

describe('two people’s changes', () => {
  const changes = fc.array(
    fc.oneof(
      fc.tuple(fc.constantFrom('terms' as const, 'gross' as const, 'net' as const), fc.constantFrom('1', '2')).map(([f, v]) => set(f, v)),
      fc.tuple(fc.constantFrom('a', 'b', 'c'), fc.constantFrom('1', '2', '9')).map(([l, v]) => cell(l, v)),
      fc.constantFrom('a', 'b', 'c').map(remove),
    ),
    { maxLength: 5 },
  );
  it('that meet nowhere end in one bill, whoever saves first', () =>
    fc.assert(
      fc.property(changes, changes, (mine, theirs) => {
        const my = stepOf(base, mine).redo,
          other = stepOf(base, theirs).redo;
        fc.pre(clashesOf(base, applyAll(base, other), my).length === 0 && clashesOf(base, applyAll(base, my), other).length === 0);
        const values = (b: Bill) => [b.terms, b.gross, b.net, b.lines.map((l) => [l.id, l.amount])];
        const one = applyWhatFits(applyAll(base, other), my),
          two = applyWhatFits(applyAll(base, my), other);
        expect(values(one.bill)).toEqual(values(two.bill));
      }),
    ));
  it('clash exactly where both changed the same to something else', () => {
    const clashes = (theirs: Operation[], mine: Operation[]) =>
      clashesOf(base, applyAll(base, theirs), mine).map((c) => [c.path, c.theirs, c.mine]);
    expect(clashes([set('gross', '4')], [set('gross', '5')])).toEqual([['gross', '4', '5']]);
    expect(clashes([set('gross', '4')], [set('gross', '4')])).toEqual([]);
    expect(clashes([set('gross', '4')], [set('terms', '4')])).toEqual([]);
    expect(clashes([cell('a', '4')], [cell('b', '5')])).toEqual([]);
    expect(clashes([cell('a', '4')], [cell('a', '5')])).toEqual([[cellPath('a', 'amount'), '4', '5']]);
    expect(clashes([remove('a')], [cell('a', '5')])).toEqual([['a', null, 'a · 5']]);
    expect(clashes([cell('a', '4')], [remove('a')])).toEqual([['a', 'a · 4', null]]);
    expect(clashes([remove('a')], [remove('a')])).toEqual([]);
  });
  it('taking theirs drops what was typed there and nothing else', () => {
    const typed = [set('gross', '5'), cell('a', '5'), cell('b', '6'), remove('c')];
    expect(withoutPath(typed, 'gross')).toEqual(typed.slice(1));
    expect(withoutPath(typed, cellPath('a', 'amount'))).toEqual([typed[0], typed[2], typed[3]]);
    expect(withoutPath(typed, 'c')).toEqual(typed.slice(0, 3));
  });
  it('keeping mine of a row that they removed puts it back at its place as it was typed', () => {
    const theirs = applyAll(base, [remove('b')]);
    const back = applyAll(theirs, mineOn(theirs, base, [cell('b', '7')], 'b'));
    expect(back.lines.map((l) => [l.id, l.amount])).toEqual([
      ['a', '1'],
      ['b', '7'],
      ['c', '3'],
    ]);
  });
});
describe('paths', () => {
  it('of all differences, by field, cell or row', () =>
    expect([...changedPaths(base, applyAll(base, [set('terms', 'x'), cell('a', '9'), remove('c')]))].sort()).toEqual([
      'a.amount',
      'c',
      'terms',
    ]));
  it('lead to what stands there', () =>
    expect(['gross', 'a.amount', 'a', 'gone', 'gone.amount'].map((p) => valueAt(base, p))).toEqual(['3', '1', 'a · 1', null, null]));
});
