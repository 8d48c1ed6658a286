import { cellPath } from '../bills/index.ts';
import { dayInWords } from '../dates/index.ts';
import { dec, formatAmount } from '../money/index.ts';
import type { Check, CheckedBill, Found } from './types.ts';

const span = ({ from, to }: { from: string; to: string }): string => `${dayInWords(from)} to ${dayInWords(to)}`;
const asks = { severity: 'asks', adjustable: true, settledBy: ['confirm'] } as const;

/** One finding for each fact of a row that is there; `said` begins with the row. */
const ofRows = <F extends { row: string }>(bill: CheckedBill, facts: readonly F[], said: (fact: F, row: string) => Found): Found[] =>
  facts.flatMap((fact) => {
    const at = bill.lines.findIndex((l) => l.id === fact.row);
    return at < 0 ? [] : [said(fact, `Row ${at + 1}`)];
  });

/** What was charged or may be spent in a time: closed months, bills that come again, budgets. */
export const timeChecks: Check[] = [
  {
    ...asks,
    code: 'month-closed',
    scope: 'header',
    needs: ['closedMonth'],
    what: 'The month of the invoice date is open',
    run: (_, { closedMonth: month }) =>
      month
        ? [
            {
              path: 'issueDate',
              key: month,
              sentence: `${dayInWords(`${month}-01`).slice(2)} is closed: this bill will be posted in a later month.`,
            },
          ]
        : [],
  },
  {
    ...asks,
    code: 'repeat-twice',
    scope: 'supplier',
    needs: ['turnTaken'],
    what: 'Of a bill that repeats, each comes once',
    run: (_, { turnTaken: of }) =>
      of
        ? [
            {
              path: 'invoiceNumber',
              key: of.id,
              other: of.id,
              sentence: `${of.name} repeats, and its bill for ${dayInWords(of.day)} has come already${of.number ? `: ${of.number}` : ''}.`,
            },
          ]
        : [],
  },
  {
    ...asks,
    code: 'charged-twice',
    scope: 'lines',
    needs: ['chargedTwice'],
    what: 'No days are charged that another bill charged',
    run: (bill, { chargedTwice }) =>
      ofRows(bill, chargedTwice, ({ row, other, ...own }, name) => ({
        path: cellPath(row, 'description'),
        key: `${other.id} ${other.from}`,
        found: span(own),
        other: other.id,
        sentence: `${name} charges ${span(own)}; ${other.number} charged ${span(other)} for the same.`,
      })),
  },
  {
    ...asks,
    code: 'budget-over',
    scope: 'lines',
    needs: ['overBudget', 'baseCurrency'],
    settledBy: ['overrule'],
    what: 'No account goes over its budget for the year',
    run: (bill, { overBudget, baseCurrency }) =>
      ofRows(bill, overBudget, ({ row, account, centre, year, planned, over }, name) => {
        const money = (amount: string) => formatAmount(dec(amount), baseCurrency);
        return {
          path: cellPath(row, 'accountId'),
          key: `${account} ${centre ?? ''} ${year}`,
          sentence: `${name} takes ${account}${centre ? ` at ${centre}` : ''} ${baseCurrency} ${money(over)} over its budget of ${money(planned)} for ${year}.`,
        };
      }),
  },
];
