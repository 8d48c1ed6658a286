import { cellPath, isGoods, priced } from '../bills/index.ts';
import { decOrNull } from '../money/index.ts';
import { combinationChecks } from './combinations.ts';
import type { Check, CheckedLine, Facts, Found } from './types.ts';

/** A check of every line: found where a line is wrong; `said` of one such row, and of many. */
const eachLine = (
  code: string,
  cell: keyof CheckedLine | 'code',
  what: string,
  said: readonly [one: string, many: string],
  wrong: (line: CheckedLine, facts: Facts) => boolean,
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
    bill.lines.flatMap((line, i) =>
      wrong(line, facts) ? [{ path: cellPath(line.id, cell), sentence: `Row ${i + 1} ${said[0]}.`, many: said[1] }] : [],
    ),
});
const closed = (code: string, cell: 'accountId' | 'costCentreId' | 'taxCodeId', what: string, said: readonly [string, string]): Check =>
  eachLine(code, cell, what, said, (l, f) => l[cell] !== null && f.closed.has(l[cell]), ['closed']);

export const lineChecks: Check[] = [
  {
    code: 'lines-missing',
    scope: 'lines',
    needs: [],
    severity: 'stops',
    adjustable: false,
    settledBy: [],
    what: 'There is at least one line',
    run: (bill) => (priced(bill.lines).length === 0 ? [{ path: 'lines', sentence: 'There are no lines. Add one, or more.' }] : []),
  },
  eachLine(
    'amount-missing',
    'amount',
    'Every row has an amount',
    ['has no amount', 'have no amount'],
    (l) => l.kind !== 'text' && decOrNull(l.amount) === null,
  ),
  eachLine(
    'text-with-amount',
    'amount',
    'Rows of text alone have no amount',
    ['is text alone and has an amount. Clear it, or make it a line', 'are text alone and have amounts. Clear them, or make them lines'],
    (l) => l.kind === 'text' && l.amount !== null,
  ),
  eachLine(
    'description-missing',
    'description',
    'Every row has a description',
    ['has no description', 'have no description'],
    (l) => !l.description.trim(),
  ),
  {
    ...eachLine(
      'quantity-missing',
      'quantity',
      'Every row of goods or services has a quantity',
      ['has no quantity', 'have no quantity'],
      (l) => isGoods(l.kind) && decOrNull(l.quantity) === null,
    ),
    severity: 'off',
    adjustable: true,
    settledBy: ['overrule'],
  },
  eachLine(
    'stock-item',
    'code',
    'Rows bought into stock name an item that is kept there',
    [
      'is bought into stock and names no item that is kept there. Take one (Alt+I), or make it goods',
      'are bought into stock and name no item that is kept there',
    ],
    (l, f) => l.kind === 'stock' && !f.stockRows.has(l.id),
    ['stockRows'],
  ),
  eachLine(
    'stock-quantity',
    'quantity',
    'Rows bought into stock have a quantity',
    ['is bought into stock and has no quantity', 'are bought into stock and have no quantity'],
    (l) => l.kind === 'stock' && (decOrNull(l.quantity)?.isZero() ?? true),
  ),
  eachLine(
    'asset-account',
    'accountId',
    'Assets stand on an account of assets',
    [
      'is an asset and on an account that is none of assets. Choose another, or make it goods',
      'are assets and on accounts that are none of assets',
    ],
    (l, f) => l.kind === 'asset' && l.accountId !== null && !f.assetAccounts.has(l.accountId),
    ['assetAccounts'],
  ),
  eachLine(
    'account-missing',
    'accountId',
    'Every row has a ledger account',
    ['needs an account', 'need an account'],
    (l) => l.kind !== 'text' && !l.accountId,
  ),
  eachLine(
    'cost-centre-missing',
    'costCentreId',
    'Accounts that need a cost centre have one',
    ['needs a cost centre', 'need a cost centre'],
    (l, f) => l.kind !== 'text' && l.accountId !== null && !l.costCentreId && f.needsCostCentre.has(l.accountId),
    ['needsCostCentre'],
  ),
  eachLine(
    'tax-code-missing',
    'taxCodeId',
    'Every row has a tax code',
    ['needs a tax code', 'need a tax code'],
    (l) => l.kind !== 'text' && !l.taxCodeId,
  ),
  closed('account-closed', 'accountId', 'Accounts take postings', [
    'is on an account that is closed on the bill’s day. Choose another',
    'are on accounts that are closed on the bill’s day. Choose others',
  ]),
  eachLine(
    'account-gathers',
    'accountId',
    'Accounts that only gather others take no lines',
    ['is on an account that only gathers others. Choose one under it', 'are on accounts that only gather others. Choose ones under them'],
    (l, f) => l.accountId !== null && f.gathering.has(l.accountId),
    ['gathering'],
  ),
  closed('cost-centre-closed', 'costCentreId', 'Cost centres take postings', [
    'is on a cost centre that is closed on the bill’s day. Choose another',
    'are on cost centres that are closed on the bill’s day. Choose others',
  ]),
  closed('tax-code-closed', 'taxCodeId', 'Tax codes are in use', [
    'has a tax code that is not in use on the bill’s day. Choose another',
    'have tax codes that are not in use on the bill’s day. Choose others',
  ]),
  {
    code: 'charge-shared',
    scope: 'lines',
    needs: ['charges'],
    severity: 'stops',
    adjustable: false,
    settledBy: [],
    what: 'Charges are shared over what came, to the cent',
    run: (bill, { charges }) =>
      bill.lines.flatMap((line, i): Found[] => {
        const { trouble, places } = charges.get(line.id) ?? { trouble: null, places: [] };
        return [
          ...(trouble === null ? [] : [{ path: cellPath(line.id, 'amount'), sentence: `Row ${i + 1}, as it is shared: ${trouble}` }]),
          ...places.map(({ goods, stops }) => ({
            path: cellPath(line.id, 'accountId'),
            key: goods,
            sentence: `Row ${i + 1}, for ${goods}, ${stops}`,
          })),
        ];
      }),
  },
  ...combinationChecks,
];
