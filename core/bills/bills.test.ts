import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyAll, applyOperation, cellPath, emptyCells, parsePath, type Operation, type WorkingBill, type WorkingLine } from './index.ts';

const mark = { page: 1, x: 10, y: 20, w: 30, h: 8 };
const row = (id: string, over: Partial<WorkingLine> = {}): WorkingLine => ({ ...emptyCells(), id, kind: 'line', marks: {}, ...over });
const bill = (over: Partial<WorkingBill> = {}): WorkingBill => ({
  kind: 'invoice',
  supplierId: null,
  invoiceNumber: 'A-1',
  issueDate: '2026-11-03',
  dueDate: null,
  terms: null,
  currency: 'GBP',
  purchaseOrder: null,
  net: '100.00',
  tax: '20.00',
  gross: '120.00',
  pricesIncludeTax: false,
  marks: { gross: { mark, confidence: 0.98, proof: 'net + tax', repaired: '128.00 was read' } },
  unsure: ['gross', 'dueDate', 'b.amount', 'lines'],
  lines: [row('a', { amount: '60.00' }), row('b', { amount: '40.00', marks: { amount: { mark, confidence: 0.6, proof: null } } })],
  ...over,
});
const ids = (b: WorkingBill) => b.lines.map((l) => l.id);

const values = fc.constantFrom('1', '2', null);
const line = fc.constantFrom('a', 'b', 'c', 'd');
const operation: fc.Arbitrary<Operation> = fc.oneof(
  fc.record({ do: fc.constant('set' as const), field: fc.constantFrom('gross' as const, 'terms' as const), value: values }),
  fc.record({ do: fc.constant('set-cell' as const), line, field: fc.constantFrom('amount' as const, 'unit' as const), value: values }),
  fc.record({ do: fc.constant('add-line' as const), line, kind: fc.constant('line' as const), after: fc.option(line) }),
  fc.record({ do: fc.constant('remove-line' as const), line }),
  fc.record({ do: fc.constant('move-line' as const), line, after: fc.option(line) }),
  fc.record({ do: fc.constant('set-kind' as const), line, kind: fc.constantFrom('line' as const, 'charge' as const, 'text' as const) }),
);
/** What a person sees: values and order, without the proofs that typing over takes away. */
const seen = ({ lines, marks: _m, unsure: _u, ...head }: WorkingBill) => ({ ...head, lines: lines.map(({ marks: _, ...l }) => l) });

describe('operations on a bill', () => {
  it('setting a value keeps its place, drops proof and repair, and settles the doubt', () => {
    const { bill: after } = applyOperation(bill(), { do: 'set', field: 'gross', value: '121.00' });
    expect(after.gross).toBe('121.00');
    expect(after.marks['gross']).toEqual({ mark, confidence: 1, proof: null });
    expect(after.unsure).toEqual(['dueDate', 'b.amount', 'lines']);
  });
  it('setting what stands there already settles the doubt and nothing else', () => {
    const { bill: after, inverse } = applyOperation(bill(), { do: 'set', field: 'gross', value: '120.00' });
    expect([after.marks, after.unsure.includes('gross'), inverse]).toEqual([bill().marks, false, null]);
  });
  it('a value without a place has no mark; one taken from the page has the place it came from', () => {
    expect(applyOperation(bill(), { do: 'set', field: 'terms', value: 'net 30' }).bill.marks).not.toHaveProperty('terms');
    expect(applyOperation(bill(), { do: 'set', field: 'terms', value: 'net 30', mark }).bill.marks['terms']!.mark).toEqual(mark);
  });
  it('a line is set, moved and removed by its id, wherever it stands', () => {
    const moved = applyOperation(bill(), { do: 'move-line', line: 'b', after: null }).bill;
    expect(ids(moved)).toEqual(['b', 'a']);
    const set = applyOperation(moved, { do: 'set-cell', line: 'b', field: 'amount', value: '41.00' }).bill;
    expect(set.lines[0]).toMatchObject({ id: 'b', amount: '41.00' });
    expect(set.unsure).not.toContain(cellPath('b', 'amount'));
    expect(ids(applyOperation(set, { do: 'remove-line', line: 'b' }).bill)).toEqual(['a']);
  });
  it('a removed line comes back at its place with its values and its places on the page', () => {
    const { bill: gone, inverse } = applyOperation(bill(), { do: 'remove-line', line: 'b' });
    const back = applyOperation(gone, inverse!).bill;
    expect(back.lines[1]).toEqual({ ...bill().lines[1], marks: { amount: { mark, confidence: 1, proof: null } } });
  });
  it('a row that becomes text alone keeps its words, and gets figures and places back', () => {
    const { bill: after, inverse } = applyOperation(bill(), { do: 'set-kind', line: 'b', kind: 'text' });
    expect(after.lines[1]).toMatchObject({ kind: 'text', amount: null, marks: {} });
    expect(after.unsure).not.toContain('b.amount');
    expect(applyOperation(after, inverse!).bill.lines[1]).toMatchObject({ kind: 'line', amount: '40.00', marks: { amount: { mark } } });
  });
  it('a line that is not there, or there already, is refused', () => {
    expect(() => applyOperation(bill(), { do: 'remove-line', line: 'x' })).toThrow('not on the bill any more');
    expect(() => applyOperation(bill(), { do: 'add-line', line: 'a', kind: 'line', after: null })).toThrow('already');
  });
  it('every operation is taken back by its inverse, in any sequence', () =>
    fc.assert(
      fc.property(fc.array(operation, { maxLength: 14 }), (ops) => {
        const past: { before: WorkingBill; inverse: Operation }[] = [];
        let now = bill();
        for (const op of ops) {
          try {
            const { bill: next, inverse } = applyOperation(now, op);
            if (inverse) past.push({ before: now, inverse });
            else expect(seen(next)).toEqual(seen(now));
            now = next;
          } catch {
            continue; // does not fit the bill as it is
          }
        }
        for (const { before, inverse } of past.reverse()) {
          now = applyOperation(now, inverse).bill;
          expect(seen(now)).toEqual(seen(before));
        }
      }),
      { numRuns: 300 },
    ));
  it('never changes the bill it was given', () =>
    fc.assert(
      fc.property(fc.array(operation, { maxLength: 6 }), (ops) => {
        const first = bill(),
          copy = structuredClone(first);
        try {
          applyAll(first, ops);
        } catch {
          /* does not fit */
        }
        expect(first).toEqual(copy);
      }),
    ));
  it('paths name a header field or a cell of a line, nothing else', () => {
    expect(parsePath('gross')).toEqual({ field: 'gross' });
    expect(parsePath('0199.amount')).toEqual({ line: '0199', cell: 'amount' });
    expect([parsePath('lines'), parsePath('stage'), parsePath('a.billId'), parsePath('')]).toEqual([null, null, null, null]);
  });
});
