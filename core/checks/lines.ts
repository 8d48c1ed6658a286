import { cellPath } from '../bills/index.ts';
import { decOrNull } from '../money/index.ts';
import type { Check, CheckedBill, CheckedLine, Facts } from './types.ts';

/** A check of every line: found where the sentence for the row ("Row 3 …") is not null. */
const eachLine = (
  code: string,
  cell: keyof CheckedLine,
  what: string,
  sentence: (line: CheckedLine, facts: Facts, bill: CheckedBill) => string | null,
  needs: Check['needs'] = [],
): Check => ({
  code,
  scope: 'lines',
  needs,
  severity: 'stops',
  adjustable: false,
  settledBy: [],
  what,
  run: (bill, facts) =>
    bill.lines.flatMap((line, i) => {
      const said = sentence(line, facts, bill);
      return said === null ? [] : [{ path: cellPath(line.id, cell), sentence: `Row ${i + 1} ${said}` }];
    }),
});
const closed = (code: string, cell: 'accountId' | 'costCentreId' | 'taxCodeId', what: string, said: string): Check =>
  eachLine(code, cell, what, (l, f) => (l[cell] && f.closed.has(l[cell]) ? said : null), ['closed']);

export const lineChecks: Check[] = [
  {
    code: 'lines-missing',
    scope: 'lines',
    needs: [],
    severity: 'stops',
    adjustable: false,
    settledBy: [],
    what: 'There is at least one line',
    run: (bill) => (bill.lines.length === 0 ? [{ path: 'lines', sentence: 'There are no lines. Add one, or more.' }] : []),
  },
  eachLine('amount-missing', 'amount', 'Every row has an amount', (l) => (decOrNull(l.amount) === null ? 'has no amount.' : null)),
  eachLine('description-missing', 'description', 'Every row has a description', (l) =>
    l.description.trim() ? null : 'has no description.',
  ),
  eachLine('account-missing', 'accountId', 'Every row has a ledger account', (l) => (l.accountId ? null : 'has no ledger account.')),
  eachLine(
    'cost-centre-missing',
    'costCentreId',
    'Accounts that need a cost centre have one',
    (l, f) => (l.accountId && !l.costCentreId && f.needsCostCentre.has(l.accountId) ? 'needs a cost centre.' : null),
    ['needsCostCentre'],
  ),
  eachLine('tax-code-missing', 'taxCodeId', 'Every row has a tax code', (l) => (l.taxCodeId ? null : 'has no tax code.')),
  closed('account-closed', 'accountId', 'Accounts take postings', 'is on an account that is closed. Choose another.'),
  closed('cost-centre-closed', 'costCentreId', 'Cost centres take postings', 'is on a cost centre that is closed. Choose another.'),
  closed('tax-code-closed', 'taxCodeId', 'Tax codes are in use', 'has a tax code that is closed. Choose another.'),
];
