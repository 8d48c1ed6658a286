import { addDays, dayInWords } from '../dates/index.ts';
import { cellPath } from '../bills/index.ts';
import { dec, decOrNull, formatAmount } from '../money/index.ts';
import { numberUnlike } from '../matching/index.ts';
import type { Check, CheckedBill, Facts, Found } from './types.ts';

/** What is unlike what one knows: shown, looked at, and said to be right. */
const unlike = (
  code: string,
  scope: Check['scope'],
  needs: Check['needs'],
  what: string,
  run: (bill: CheckedBill, facts: Facts) => Found[],
): Check => ({ code, scope, needs, severity: 'asks', adjustable: true, settledBy: ['confirm'], what, run });

/** So many times the largest of a supplier's last bills is far from its habit. */
const farAbove = 3;
/** What costs so much more than last time, in percent, is said. */
const dearer = 10;

export const habitChecks: Check[] = [
  unlike('date-future', 'header', ['today'], 'The invoice date is not in the future', (bill, { today }) =>
    bill.issueDate && bill.issueDate > addDays(today, 1)
      ? [
          {
            path: 'issueDate',
            key: bill.issueDate,
            found: dayInWords(bill.issueDate),
            sentence: `The invoice date, ${dayInWords(bill.issueDate)}, is in the future.`,
          },
        ]
      : [],
  ),
  unlike('date-old', 'header', ['today'], 'The invoice date is less than a year ago', (bill, { today }) =>
    bill.issueDate && bill.issueDate < addDays(today, -365)
      ? [
          {
            path: 'issueDate',
            key: bill.issueDate,
            found: dayInWords(bill.issueDate),
            sentence: `The invoice date, ${dayInWords(bill.issueDate)}, is more than a year ago.`,
          },
        ]
      : [],
  ),
  unlike('currency-unexpected', 'header', ['known'], 'It is in the currency of its supplier', (bill, { known }) =>
    known && known.currency !== bill.currency
      ? [
          {
            path: 'currency',
            key: bill.currency,
            found: bill.currency,
            expected: known.currency,
            sentence: `${known.name} is paid in ${known.currency}; this bill is in ${bill.currency}.`,
          },
        ]
      : [],
  ),
  unlike('number-unlike', 'header', ['known'], 'The number looks like the supplier’s other numbers', (bill, { known }) =>
    // Credit notes have numbers of their own.
    bill.kind === 'invoice' && bill.invoiceNumber && known && numberUnlike(bill.invoiceNumber, known.numbers)
      ? [
          {
            path: 'invoiceNumber',
            key: bill.invoiceNumber,
            found: bill.invoiceNumber,
            expected: known.numbers.slice(0, 2).join(', '),
            sentence: `No bill of ${known.name} had a number like ${bill.invoiceNumber}; the last were ${known.numbers.slice(0, 2).join(' and ')}. Is it another number of the page?`,
          },
        ]
      : [],
  ),
  unlike('amount-unusual', 'sums', ['known'], 'The total is not far above the supplier’s last bills', (bill, { known }) => {
    const gross = decOrNull(bill.gross),
      habit = known?.habit;
    if (!gross || !habit || bill.kind !== 'invoice' || gross.lte(dec(habit.most).times(farAbove))) return [];
    const money = (amount: string) => formatAmount(dec(amount), bill.currency);
    return [
      {
        path: 'gross',
        key: gross.toFixed(),
        found: money(gross.toFixed()),
        expected: `${money(habit.least)} to ${money(habit.most)}`,
        earlier: habit.totals,
        sentence: `The total of ${money(gross.toFixed())} is far above the last ${habit.bills} bills of ${known!.name}: ${money(habit.least)} to ${money(habit.most)}.`,
      },
    ];
  }),
  unlike('price-up', 'lines', ['known'], 'Things do not cost much more than last time', (bill, { known }) =>
    bill.lines.flatMap((line, i): Found[] => {
      const last = known?.lastPrices.get(line.id),
        price = decOrNull(line.unitPrice),
        per = decOrNull(line.priceQuantity);
      if (!last || !price || !per || per.isZero() || bill.kind !== 'invoice') return [];
      const now = price.div(per),
        up = dec(last.price).gt(0) ? now.div(last.price).minus(1).times(100) : dec(0);
      if (up.lte(dearer)) return [];
      const then = dec(last.price).toDecimalPlaces(4).toFixed();
      return [
        {
          path: cellPath(line.id, 'unitPrice'),
          key: now.toFixed(),
          found: now.toDecimalPlaces(4).toFixed(),
          expected: then,
          sentence: `Row ${i + 1} costs ${up.toDecimalPlaces(0).toFixed()}% more than on ${dayInWords(last.on)}: ${then} then.`,
        },
      ];
    }),
  ),
];
