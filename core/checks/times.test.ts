import { describe, expect, it } from 'vitest';
import { timeChecks } from './times.ts';
import type { CheckedBill, CheckedLine, Facts } from './types.ts';

const lines = ['a', 'b'].map((id) => ({ id, kind: 'line', description: id }) as CheckedLine);
const nothing = { closedMonth: null, turnTaken: null, chargedTwice: [], overBudget: [], baseCurrency: 'GBP' };
const found = (facts: Partial<Facts>) =>
  timeChecks.flatMap((c) => c.run({ lines } as CheckedBill, { ...nothing, ...facts } as Facts).map((f) => [c.code, f.path, f.sentence, f.other ?? null])); // prettier-ignore

describe('what is charged or may be spent in a time', () => {
  it('says nothing where nothing is', () => expect(found({})).toEqual([]));
  it('says that a month is closed, a turn taken, days charged twice, a budget gone over', () => {
    expect(found({ closedMonth: '2026-10' })).toEqual([['month-closed', 'issueDate', 'Oct 2026 is closed: this bill will be posted in a later month.', null]]); // prettier-ignore
    expect(found({ turnTaken: { name: 'Ground rent', day: '2026-11-01', id: 'x', number: 'GR-11' } })).toEqual([
      ['repeat-twice', 'invoiceNumber', 'Ground rent repeats, and its bill for 1 Nov 2026 has come already: GR-11.', 'x'],
    ]);
    expect(found({ chargedTwice: [{ row: 'b', from: '2026-11-01', to: '2026-11-30', other: { id: 'y', number: 'LS-4', from: '2026-10-15', to: '2026-11-14' } }] })).toEqual([
      ['charged-twice', 'b.description', 'Row 2 charges 1 Nov 2026 to 30 Nov 2026; LS-4 charged 15 Oct 2026 to 14 Nov 2026 for the same.', 'y'],
    ]); // prettier-ignore
    expect(found({ overBudget: [{ row: 'a', account: '6100', centre: '200', year: 2026, planned: '1000.00', over: '1234.50' }] })).toEqual([
      ['budget-over', 'a.accountId', 'Row 1 takes 6100 at 200 GBP 1,234.50 over its budget of 1,000.00 for 2026.', null],
    ]);
  });
});
