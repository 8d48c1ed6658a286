import type { BillOrders } from '@ledgerline/contract';
import { dec } from '@ledgerline/core/money';
import { money, price } from '../ui/format';

type Line = BillOrders['lines'][number];
/** A quantity in its unit. */
export const amountOf = (n: string, unit: string | null): string => `${dec(n).toDecimalPlaces(4).toFixed()}${unit ? ` ${unit}` : ''}`;

/** What of a line is not as ordered, in a few words; empty where all is. */
export function differencesOf(line: Line, currency: string): string[] {
  const { unit } = line;
  return [
    ...line.overPrice.map((o) => `${price(o.each, currency)} each too dear, ${money(o.total, currency)} in all`),
    ...(line.overOrdered === null
      ? []
      : dec(line.overOrdered).lt(0)
        ? [`takes back ${amountOf(dec(line.overOrdered).negated().toFixed(), unit)} too many`]
        : [`${amountOf(line.overOrdered, unit)} not ordered`]),
    ...(line.overReceived === null ? [] : [`${amountOf(line.overReceived, unit)} not received`]),
  ];
}

/** A bill beside its orders in one sentence; null where it is of none and none is in sight. */
export function summaryOf(
  { lines, rows, withoutOrder, passedAlone, choices, currency }: BillOrders,
  goods: readonly string[],
): string | null {
  if (withoutOrder) return 'Of no order';
  if (lines.length === 0) return choices.length > 0 ? 'Of no order so far' : null;
  const orders = [...new Set(lines.map((l) => l.order))],
    bound = goods.filter((id) => rows.some((r) => r.row === id && r.orderLineId !== null)).length,
    off = lines.filter((l) => differencesOf(l, currency).length > 0).length;
  const what = `Order ${orders.join(', ')}`,
    all = goods.length === 1 ? 'its row' : bound === goods.length ? `all ${bound} rows` : `${bound} of ${goods.length} rows`;
  if (passedAlone) return `${what}: went on by itself, all of it is as ordered`;
  return off === 0 ? `${what}: ${all} as ordered` : `${what}: ${all} found, ${off} ${off === 1 ? 'line is' : 'lines are'} not as ordered`;
}

/** A question about what a bill asks beyond its orders, to whoever ordered it. */
export function questionOf(lines: readonly Line[], currency: string, bill: { invoiceNumber: string | null; supplier: string }): string {
  const off = lines.flatMap((l) => {
    const said = differencesOf(l, currency);
    return said.length > 0 ? [`${l.order}, line ${l.place}, ${l.description}: ${said.join('; ')}.`] : [];
  });
  return [`Is this right on invoice ${bill.invoiceNumber ?? '(no number)'} of ${bill.supplier}?`, ...off].join('\n');
}
