import { cellPath } from '../bills/index.ts';
import type { Compared, PriceOver } from '../matching/index.ts';
import { dec, fixed, formatAmount } from '../money/index.ts';
import type { Change, Check, CheckedBill, Facts, Found } from './types.ts';

const check = (
  code: string,
  what: string,
  severity: Check['severity'],
  run: (bill: CheckedBill, orders: Facts['orders']) => Found[],
): Check => ({
  code,
  scope: 'orders',
  needs: ['orders'],
  severity,
  adjustable: true,
  settledBy: ['overrule'],
  what,
  run: (bill, { orders }) => run(bill, orders),
});

/** Words for carriage, in the languages that are read. */
const carriage =
  /\b(?:carriage|freight|delivery|postage|shipping|haulage|transport|p\s?&\s?p|vracht|verzend|bezorg|port|livraison|fracht|versand|lieferkosten|trasporto|spedizione|portes|env[ií]o|frakt|fragt|toimitus|doprav)/i;
const number = (n: string): string => dec(n).toDecimalPlaces(4).toFixed();
const lineOf = ({ order, place }: Compared): string => `order ${order}, line ${place}`;
/** "Row 2" by a row's id. */
const rowNumber = (bill: CheckedBill, id: string): number => bill.lines.findIndex((l) => l.id === id) + 1;
const quantity = (of: Compared, n: string): string => `${number(n)}${of.unit ? ` ${of.unit}` : ''}`;

/** The row at the price that was ordered: what it costs less is taken off its amount. */
function atOrderPrice(bill: CheckedBill, { row, total }: PriceOver): Change[] {
  const line = bill.lines.find((l) => l.id === row);
  if (!line?.amount || bill.pricesIncludeTax) return [];
  const amount = fixed(dec(line.amount).minus(total), bill.currency),
    n = line.quantity === null ? dec(0) : dec(line.quantity);
  const price = n.isZero() ? null : dec(amount).div(n).times(line.priceQuantity).toDecimalPlaces(4).toFixed();
  return [
    {
      kind: 'operations',
      label: 'Take the order’s price',
      operations: [
        ...(price === null ? [] : [{ do: 'set-cell' as const, line: row, field: 'unitPrice' as const, value: price }]),
        ...(line.discountPercent === null ? [] : [{ do: 'set-cell' as const, line: row, field: 'discountPercent' as const, value: null }]),
        { do: 'set-cell' as const, line: row, field: 'amount' as const, value: amount },
      ],
    },
  ];
}

/** One finding a line of an order, at the first row that bills it. */
const eachLine =
  (said: (of: Compared) => string | null, key: (of: Compared) => string, expected: (of: Compared) => string) =>
  (bill: CheckedBill, orders: Facts['orders']) =>
    orders.compared.flatMap((of): Found[] => {
      const sentence = said(of),
        row = of.rows[0]!;
      if (sentence === null) return [];
      return [
        {
          path: cellPath(row, 'quantity'),
          key: key(of),
          sentence: `Row ${rowNumber(bill, row)} ${sentence}`,
          found: quantity(of, of.onBill),
          expected: quantity(of, expected(of)),
        },
      ];
    });

export const orderChecks: Check[] = [
  check('order-unknown', 'The order number is one of ours', 'asks', (_, { unknown }) =>
    unknown
      ? [
          {
            path: 'purchaseOrder',
            key: unknown.number,
            found: unknown.number,
            expected: unknown.maybe,
            sentence: `${
              unknown.of
                ? `Order ${unknown.number} is with ${unknown.of}, not with this supplier.`
                : `There is no order ${unknown.number} with this supplier.`
            }${unknown.maybe ? ` All rows are those of ${unknown.maybe}.` : ''}`,
            changes: unknown.maybe
              ? [
                  {
                    kind: 'operations',
                    label: `It is ${unknown.maybe}`,
                    operations: [{ do: 'set', field: 'purchaseOrder', value: unknown.maybe }],
                  },
                ]
              : [],
          },
        ]
      : [],
  ),
  check('order-closed', 'Its orders are open', 'asks', (_, { closed }) =>
    closed.map((order) => ({
      path: 'purchaseOrder',
      key: order,
      sentence: `Order ${order} is closed: no bill of it was expected any more.`,
    })),
  ),
  check('order-currency', 'It is in the currency of its order', 'stops', (bill, { otherCurrency: other }) =>
    other
      ? [
          {
            path: 'currency',
            key: other.order,
            found: bill.currency,
            expected: other.currency,
            sentence: `This bill is in ${bill.currency}; order ${other.order} is in ${other.currency}.`,
          },
        ]
      : [],
  ),
  check('order-price', 'Rows cost what was ordered', 'stops', (bill, { compared }) =>
    compared.flatMap((of) =>
      of.overPrice.map((over): Found => {
        const each = dec(of.unitPrice).plus(over.each);
        return {
          path: cellPath(over.row, 'unitPrice'),
          key: `${of.id} ${over.total}`,
          found: number(each.toFixed()),
          expected: number(of.unitPrice),
          sentence: `Row ${rowNumber(bill, over.row)} costs ${number(each.toFixed())} each; ${lineOf(of)} says ${number(of.unitPrice)}: ${formatAmount(dec(over.total), bill.currency)} more.`,
          changes: atOrderPrice(bill, over),
        };
      }),
    ),
  ),
  check(
    'order-quantity',
    'Not more is billed than was ordered',
    'stops',
    eachLine(
      (of) =>
        of.overOrdered === null
          ? null
          : dec(of.overOrdered).lt(0)
            ? `takes back ${quantity(of, dec(of.onBill).abs().toFixed())}; of ${lineOf(of)}, ${quantity(of, of.billed)} were billed.`
            : `bills ${quantity(of, of.onBill)}; ${lineOf(of)} is for ${quantity(of, of.ordered)}${dec(of.billed).isZero() ? '' : `, and ${quantity(of, of.billed)} were billed before`}.`,
      (of) => `${of.id} ${of.overOrdered}`,
      (of) => dec(of.ordered).minus(of.billed).toFixed(),
    ),
  ),
  check(
    'order-not-received',
    'What is billed has come',
    'stops',
    eachLine(
      (of) =>
        // Where all has come, only the order is what it goes beyond.
        of.overReceived === null || dec(of.received!).gte(of.ordered)
          ? null
          : `bills ${quantity(of, of.onBill)}; of ${lineOf(of)}, ${dec(of.received!).isZero() ? 'nothing has come so far' : `${quantity(of, of.received!)} have come so far`}${dec(of.billed).isZero() ? '' : `, and ${quantity(of, of.billed)} were billed before`}.`,
      (of) => `${of.id} ${of.overReceived}`,
      (of) => dec(of.received!).minus(of.billed).toFixed(),
    ),
  ),
  check('row-not-ordered', 'All rows of goods and services are in its orders', 'asks', (bill, { beside }) =>
    beside.map((row): Found => {
      const freight = carriage.test(bill.lines.find((l) => l.id === row)?.description ?? '');
      return {
        path: cellPath(row, 'description'),
        key: 'order',
        sentence: freight
          ? `Row ${rowNumber(bill, row)} looks like carriage, which its orders do not have.`
          : `Row ${rowNumber(bill, row)} is in none of its orders.`,
        ...(freight ? {} : { many: 'are in none of its orders' }),
        changes: freight
          ? [{ kind: 'operations', label: 'Make it a charge', operations: [{ do: 'set-kind', line: row, kind: 'charge' }] }]
          : [],
      };
    }),
  ),
];
